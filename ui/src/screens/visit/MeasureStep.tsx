// Range of motion as arcs; the same screen before and after.
import { useEffect, useState } from "react";
import { styled } from "styled-components";
import { useCourse } from "../../api/queries";
import { useAsk } from "../../core/useAsk";
import type { Schemas } from "../../api/client";
import { Choice } from "../../parts/controls";
import { jointNames, plain, sentence } from "../../parts/words";
import { ByInstrument } from "./ByInstrument";
import { MovementCard } from "./measure/MovementCard";
import type { Placing } from "./measure/reading";
import { type Moment, useReadings } from "./measure/useReadings";
import type { StepProps } from "./StepProps";

/** Shown when nothing was measured before and no joint is chosen. */
const first: Schemas["MovementID"][] = [
  "cervical.rotation",
  "cervical.lateral-flexion",
  "lumbar.flexion",
  "lumbar.lateral-flexion",
  "ankle.dorsiflexion-knee-straight",
  "ankle.dorsiflexion-knee-bent",
];
const jointOf = (movement: string) => movement.split(".")[0] ?? "";
const asBefore = "as before";

const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(270px, 100%), 1fr));
  gap: 12px;
  .entry {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px;
  }
  .three {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .three input {
    width: 100%;
  }
  h3 {
    font-size: 15px;
  }
  .flag {
    color: var(--warn);
    font-size: var(--t1);
    min-height: 20px;
  }
`;

interface Props extends StepProps {
  moment: Moment;
  only?: string[];
  placing?: Placing;
}

export function MeasureStep({ visit, moment, only, placing }: Props) {
  const { open, state, core } = visit;
  const course = useCourse(open.client.id);
  const [joint, setJoint] = useState<string>();
  const [tool, setTool] = useState(state.ranges.find((r) => r.tool)?.tool ?? "inclinometer");
  const readings = useReadings(visit, moment, tool);
  const all = core.lists.movements;
  const today = useAsk(core, "movements", { screening: state.known_answers })?.today ?? [];
  const past = course.data?.history.ranges ?? [];
  const known: string[] = [...past, ...state.ranges].map((r) => r.movement);
  const wanted = known.length ? known : first;
  const shown = all.filter(({ movement }) => {
    if (only) return only.includes(movement);
    return joint ? jointOf(movement) === joint : wanted.includes(movement);
  });
  const [one] = shown;
  useFirst(placing, one, tool);
  const joints = [...new Set(all.map((m) => jointOf(m.movement)))];
  return (
    <>
      <h2>{heading(moment, state.ranges)}</h2>
      {!only && (
        <Choice
          quiet
          label="Joint"
          value={joint ?? asBefore}
          options={[asBefore, ...joints]}
          onChoose={(j) => setJoint(j === asBefore ? undefined : j)}
          describe={(j) =>
            j === asBefore ? (past.length ? asBefore : "usual") : (jointNames[j] ?? sentence(plain(j)))
          }
        />
      )}
      <ByInstrument
        core={core}
        slots={(times) => readings.missing(shown, times)}
        ask={moment === "before"}
        tool={tool}
        onTool={setTool}
        onNext={(s, live) => placing?.setMeasuring({ movement: s.movement, side: s.side, tool, live })}
        onTaken={(s, degrees) => readings.setTrial(s, s.trial, degrees)}
      />
      <Grid>
        {shown.map((m) => (
          <MovementCard
            key={m.movement}
            m={m}
            visit={visit}
            past={past.filter((r) => r.movement === m.movement)}
            readings={readings}
            placing={placing}
            onRead={(side) => placing?.setMeasuring({ movement: m.movement, side, tool })}
            cautions={today.find((t) => t.movement === m.movement)?.cautions}
          />
        ))}
      </Grid>
    </>
  );
}

/** Until a reading is chosen, how the first one is taken is drawn. */
function useFirst(placing: Placing | undefined, m: Schemas["Measurable"] | undefined, tool: string) {
  const taken = placing?.measuring;
  const [side] = m?.sides ?? [];
  const movement = m?.movement;
  const set = placing?.setMeasuring;
  useEffect(() => {
    if (!taken && set && movement && side) set({ movement, side, tool });
  }, [taken, set, movement, side, tool]);
}

function heading(moment: Moment, ranges: Schemas["Range"][]) {
  if (moment === "before") return "Range before treatment";
  const tools = [...new Set(ranges.flatMap((r) => (r.tool ? [r.tool] : [])))];
  return `Range again, the same way${tools.length ? `: ${tools.join(", ")}` : ""}`;
}
