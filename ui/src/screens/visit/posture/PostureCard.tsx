// Posture, measure by measure: what was read today beside last time, both sides compared. A touch
// on a row, or on its line on the body, opens it.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Card, bare } from "../../../parts/controls";
import { Said } from "../../../parts/layout";
import { useUnitPreferences } from "../../../parts/unitPreferences";
import type { StepProps } from "../StepProps";
import { InOrder } from "./InOrder";
import type { PosturePlace } from "./lines";
import { judged, measures, ofSides, valueOf } from "./measures";
import { Reading } from "./Reading";
import { Thresholds } from "./Thresholds";

const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  > li {
    border-top: 1px solid var(--line-soft);
    padding: 2px 0;
  }
  > li > button {
    ${bare}
    width: 100%;
    min-height: var(--touch);
    text-align: left;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 var(--s3);
    align-items: center;
    font-variant-numeric: tabular-nums;
  }
  > li[data-open="true"] > button {
    color: var(--accent);
    font-weight: 620;
  }
  .read {
    text-align: right;
  }
  .open {
    display: grid;
    gap: var(--s3);
    padding: var(--s2) 0 var(--s3);
  }
`;
const Flag = styled.span<{ $flagged?: boolean }>`
  color: ${(p) => (p.$flagged ? "var(--warn)" : "inherit")};
`;

interface Props extends StepProps {
  chosen?: PosturePlace;
  onChoose: (p: PosturePlace | undefined) => void;
}

export function PostureCard({ visit, chosen, onChoose }: Props) {
  return (
    <Card $gap={3} data-posture>
      <h2>Posture</h2>
      <Said className="quiet">Touch a line on the body or a row here. Grey is last time.</Said>
      <InOrder visit={visit} onNext={onChoose} />
      <List>
        {Object.keys(measures).map((id) => (
          <Measured
            key={id}
            visit={visit}
            id={id as PosturePlace["measure"]}
            chosen={chosen?.measure === id ? chosen : undefined}
            onChoose={onChoose}
          />
        ))}
      </List>
      <Thresholds visit={visit} />
    </Card>
  );
}

/** One measure: its name, what was read, and, opened, how it is read. */
function Measured({ visit, id, chosen, onChoose }: Props & { id: PosturePlace["measure"] }) {
  const m = measures[id];
  const { state, open } = visit;
  if (!m) return null;
  const side = ofSides(m) ? "left" : "midline";
  const today = state.posture.flatMap((p, i) =>
    p.measure === id ? [{ p, flag: state.posture_flags[i] }] : [],
  );
  const before = open.earlier_posture.filter((p) => p.measure === id);
  return (
    <li data-open={!!chosen} data-measure={id}>
      <button
        type="button"
        aria-expanded={!!chosen}
        onClick={() => onChoose(chosen ? undefined : { measure: id, side })}
      >
        <span>{m.name}</span>
        <span className="read">
          {today.map(({ p, flag }) => (
            <Read key={p.side ?? ""} p={p} flag={flag} />
          ))}
          {before.length > 0 && <Before list={before} />}
        </span>
      </button>
      {today.map(({ p, flag }) => flag && <Judged key={p.side ?? ""} p={p} flag={flag} />)}
      {chosen && (
        <div className="open">
          <Reading key={id} visit={visit} measure={id} m={m} side={chosen.side} />
        </div>
      )}
    </li>
  );
}

function Read({ p, flag }: { p: Schemas["Posture"]; flag?: Schemas["PostureFlag"] }) {
  const w = useUnitPreferences();
  return (
    <Flag $flagged={flag?.flagged}>
      {p.side ? `${p.side} ` : ""}
      {valueOf(p, w)}{" "}
    </Flag>
  );
}

function Judged({ p, flag }: { p: Schemas["Posture"]; flag: Schemas["PostureFlag"] }) {
  return (
    <Said className="quiet" $small>
      {p.side ? `${p.side}: ` : ""}
      {judged(flag)} ({flag.source})
    </Said>
  );
}

function Before({ list }: { list: Schemas["Posture"][] }) {
  const w = useUnitPreferences();
  return (
    <span className="quiet small">
      {" "}
      last time {list.map((p) => `${p.side ? `${p.side} ` : ""}${valueOf(p, w)}`).join(", ")}
    </span>
  );
}
