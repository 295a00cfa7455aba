// The same pressure again and again: how alike one's own presses are, and whose hand is heavier.
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { styled } from "styled-components";
import { now } from "../../core/clock";
import { loadBench } from "../../core/loadBench";
import { Button, Card } from "../../parts/controls";
import { Choice } from "../../parts/Choice";
import { Row, Said, Stack } from "../../parts/layout";
import { useHandForce } from "./exercise/force";

/** So many presses are asked for. */
const presses = 5;
/** Held so long a finger sinks in by so much: by hand the time is the force. */
const newtonsPerS = 9;
const most = 60;

type Who = "first" | "second";

const Pressed = styled.button`
  min-height: 96px;
  border: 1px solid var(--accent);
  border-radius: var(--r2);
  background: var(--accent-soft);
  color: var(--accent);
  font: 600 20px var(--text);
  cursor: pointer;
  touch-action: none;
  &:active {
    background: var(--accent);
    color: var(--accent-ink);
  }
`;

export function SamePressure() {
  const [who, setWho] = useState<Who>("first");
  const [lists, setLists] = useState<Record<Who, number[]>>({ first: [], second: [] });
  const hand = useHandForce(0);
  const began = useRef(0);
  const peak = useRef(0);
  peak.current = Math.max(peak.current, hand.newtons);
  const list = lists[who];
  const full = list.length >= presses;
  const down = () => {
    began.current = now();
    peak.current = hand.newtons;
  };
  const up = () => {
    if (!began.current || full) return;
    const s = (now() - began.current) / 1000;
    began.current = 0;
    const n = Math.min(most, hand.byPad ? peak.current : s * newtonsPerS);
    setLists({ ...lists, [who]: [...list, Math.round(n * 10) / 10] });
  };
  const said = useQuery({
    queryKey: ["same-pressure", lists],
    networkMode: "always",
    queryFn: async () => (await loadBench()).ask("pressure", lists),
  }).data;
  return (
    <Card data-same-pressure>
      <h2>Same pressure</h2>
      <Said className="quiet">
        Press to the first resistance, five times, and let go. By hand the bar below sinks as long as it is
        held; with the pressure pad the hand itself is measured. No number is shown before the fifth.
      </Said>
      <Row $wrap $gap={3} $align="flex-end">
        <Choice
          label="Who presses"
          options={["first", "second"] as const}
          describe={(w) => `The ${w}`}
          value={who}
          onChoose={setWho}
        />
        {hand.pad && (
          <Button aria-pressed={hand.byPad} onPress={hand.toggle}>
            {hand.byPad ? "By hand again" : "From the pressure pad"}
          </Button>
        )}
      </Row>
      <Pressed
        type="button"
        disabled={full}
        onPointerDown={down}
        onPointerUp={up}
        onPointerLeave={up}
        onKeyDown={(e) => e.key === " " && !e.repeat && down()}
        onKeyUp={(e) => e.key === " " && up()}
      >
        {full ? "All five were pressed" : `Press and let go: ${list.length + 1} of ${presses}`}
      </Pressed>
      {full && (
        <Stack $gap={1} data-alike>
          <Said $lead>{said?.[who].text}</Said>
          <Said className="quiet">{list.map((n) => `${n} N`).join(", ")}</Said>
        </Stack>
      )}
      {lists.first.length >= presses && lists.second.length >= presses && (
        <Said data-heavier>{said?.heavier}</Said>
      )}
      {list.length > 0 && (
        <Row>
          <Button onPress={() => setLists({ ...lists, [who]: [] })}>Again from the first</Button>
        </Row>
      )}
    </Card>
  );
}
