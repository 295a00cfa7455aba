// The protocol of a point: what is suggested and why, another by one touch, and
// what safety says to that.
import type { Schemas } from "../../../api/client";
import { Pick } from "../../../parts/controls";
import { Disclosed } from "../../../parts/Disclosed";
import { Said } from "../../../parts/layout";
import { listed, setName } from "../../../parts/words";
import type { StepProps } from "../StepProps";

/** What a hold by a protocol is kept within. */
const limitsOf = (p: Schemas["PointSuggestion"]) =>
  `${listed(
    `Target ${p.target}`,
    `ceilings ${p.soft_ceiling} / ${p.hard_ceiling}`,
    p.presses && `at most ${p.cap_seconds} s`,
    p.presses && `on ${setName(p.muscle_set)}`,
  )}.`;

interface Props extends StepProps {
  point: Schemas["Point"];
  work: Schemas["PointWork"];
}

export function ProtocolPick({ visit, point, work }: Props) {
  const { suggested, taken, not_offered: no } = work;
  if (suggested.blocked) return <Said $tone="stop">{suggested.text}</Said>;
  const now = taken ?? suggested;
  const { protocols: known } = visit.core.lists;
  return (
    <>
      <Pick
        label="Protocol"
        none={`${suggested.name}, as suggested`}
        value={point.chosen_protocol}
        options={known
          .map((s) => s.protocol)
          .filter((p) => p !== suggested.protocol && !no.some((n) => n.protocol === p))}
        describe={(p) => known.find((s) => s.protocol === p)?.name ?? p}
        onPick={(protocol) =>
          visit.write("protocol-chosen", { point: point.point, ...(protocol ? { protocol } : {}) })
        }
      />
      <Said className={now.blocked ? undefined : "quiet"} $tone={now.blocked ? "stop" : undefined} $small>
        {now.blocked ? `${now.text} It stays with ${suggested.name}.` : `${now.text} ${limitsOf(now)}`}
      </Said>
      {no.length > 0 && (
        <Disclosed summary={`Not offered here: ${no.length} of ${known.length}`}>
          {no.map((n) => (
            <Said key={n.protocol} $small>
              {known.find((s) => s.protocol === n.protocol)?.name}: {n.why}
            </Said>
          ))}
        </Disclosed>
      )}
      {now.cautions && <Said $tone="warn">{now.cautions.join(" ")}</Said>}
    </>
  );
}
