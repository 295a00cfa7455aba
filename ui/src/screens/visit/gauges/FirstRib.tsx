import { Choice } from "../../../parts/controls";
import { Columns, Row, Stack } from "../../../parts/layout";
import type { StepProps } from "../StepProps";

/** Whether the first rib rises with the breath, on each side. */
export function FirstRib({ visit }: StepProps) {
  const { core, state, write } = visit;
  return (
    <Columns $cols="minmax(0, 1fr) auto" $gap={3} $align="center" data-gauge="first-rib-rise">
      <span>
        <b>First rib on breathing in</b>
        <br />
        <span className="quiet small">{core.lists.tests.find((t) => t.id === "first-rib-rise")?.how}</span>
      </span>
      <Stack>
        {(["left", "right"] as const).map((side) => {
          const r = state.tests.find((t) => t.test === "first-rib-rise" && t.side === side)?.result;
          return (
            <Row key={side} $end>
              <span className="quiet">{side}</span>
              <Choice
                quiet
                label={`First rib, ${side}`}
                value={r === "negative" ? "rises" : r === "positive" ? "stays" : undefined}
                options={["rises", "stays"] as const}
                onChoose={(x) =>
                  write("test-done", {
                    test: "first-rib-rise",
                    side,
                    result: x === "stays" ? "positive" : "negative",
                  })
                }
              />
            </Row>
          );
        })}
      </Stack>
    </Columns>
  );
}
