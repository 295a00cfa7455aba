// Squat and toe-touch: signs touched on the figure or chosen here.
import { styled } from "styled-components";
import type { LiveVisit } from "../../../core/useVisit";
import { Card, Choices } from "../../../parts/controls";
import type { StepProps } from "../StepProps";
import { seenAt, type Spot, toggleSign } from "./spots";

const List = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(256px, 100%), 1fr));
  gap: 0 26px;
  > div {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    padding: 3px 0;
    border-top: 1px solid var(--line-soft);
  }
`;

interface Sign {
  name: string;
  of: Spot[];
}

export function SignsCard({ visit }: StepProps) {
  const spots = visit.core.lists.signs;
  const signs: Sign[] = [...new Set(spots.map((s) => s.name))].map((name) => ({
    name,
    of: spots.filter((s) => s.name === name),
  }));
  return (
    <Card>
      <h2>Seen in squat and toe-touch</h2>
      <p className="quiet">Tap the diamond where you see it, or choose here.</p>
      <Part title="Squat" visit={visit} signs={signs.filter((r) => r.of[0]?.sign)} />
      <Part title="Toe-touch" visit={visit} signs={signs.filter((r) => !r.of[0]?.sign)} />
    </Card>
  );
}

function Part({ title, visit, signs }: { title: string; visit: LiveVisit; signs: Sign[] }) {
  return (
    <>
      <h3>{title}</h3>
      <List>
        {signs.map((r) => {
          const on = r.of.filter((s) => seenAt(visit.state, s)).map((s) => s.side);
          return (
            <div key={r.name} data-sign={r.of[0]?.sign ?? r.of[0]?.measure}>
              <span>{r.name}</span>
              <Choices
                quiet
                label={r.name}
                values={on}
                options={r.of.map((s) => s.side).sort()}
                describe={(s) => (s === "midline" ? "seen" : s)}
                onChange={(next) => {
                  const s = r.of.find((x) => on.includes(x.side) !== next.includes(x.side));
                  if (s) toggleSign(visit, s);
                }}
              />
            </div>
          );
        })}
      </List>
    </>
  );
}
