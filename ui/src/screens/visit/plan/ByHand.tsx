// The therapist's own judgement, with its reason, beside the computed one.
import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { Button, Disclosed, Perhaps, Text } from "../../../parts/controls";
import { Row, Said, Stack } from "../../../parts/layout";
import { plain } from "../../../parts/words";
import type { StepProps } from "../StepProps";

interface Props extends StepProps {
  point: Schemas["Point"];
  work: Schemas["PointWork"];
}

type Made = Omit<Schemas["JudgementMade"], "point">;

export function ByHand({ visit, point, work }: Props) {
  const kept = point.judged_by_hand;
  const [made, setMade] = useState<Made>(kept ?? { reason: "" });
  const set = (over: Partial<Made>) => setMade({ ...made, ...over });
  const something = made.certainty || made.activity || made.role;
  return (
    <Disclosed summary={kept ? "Judged by hand" : "Change this"}>
      <Stack $gap={3}>
        {kept && (
          <p>
            By hand:{" "}
            {[kept.certainty, kept.activity, kept.role]
              .filter(Boolean)
              .map((x) => plain(x ?? ""))
              .join(", ")}
            . {kept.reason}{" "}
            <span className="quiet">
              Computed: {plain(work.judged.certainty)}, {work.judged.activity}, {work.judged.roles[0]?.role}.
            </span>
          </p>
        )}
        <Perhaps
          label="Certainty"
          value={made.certainty}
          options={["trigger-point", "possible", "tender-spot"] as const}
          describe={plain}
          onChoose={(certainty) => set({ certainty })}
        />
        <Perhaps
          label="Activity"
          value={made.activity}
          options={["active", "latent", "none"] as const}
          onChoose={(activity) => set({ activity })}
        />
        <Perhaps
          label="Part"
          value={made.role}
          options={["primary", "satellite", "functional"] as const}
          onChoose={(role) => set({ role })}
        />
        <Text label="Because" value={made.reason} onChange={(reason) => set({ reason })} />
        {something && !made.reason.trim() && <Said className="quiet">A reason is kept with it.</Said>}
        <Row>
          <Button
            isDisabled={!something || !made.reason.trim()}
            onPress={() => visit.write("judgement-made", { ...made, point: point.point })}
          >
            Keep this judgement
          </Button>
          {kept && (
            <Button
              onPress={() => {
                visit.write("judgement-made", { point: point.point, reason: "" });
                setMade({ reason: "" });
              }}
            >
              As computed
            </Button>
          )}
        </Row>
      </Stack>
    </Disclosed>
  );
}
