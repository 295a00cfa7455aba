// What happened in the visit, in order, with who and when.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { useAskVisit } from "../../core/useAsk";
import { Card, Disclosed } from "../../parts/controls";
import type { StepProps } from "./StepProps";
import { dateFormat } from "../../parts/dates";

const List = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: 64px minmax(0, 1fr) auto;
    gap: var(--s3);
    padding: 5px 0;
    border-top: 1px solid var(--line-soft);
  }
  li:first-child {
    border-top: 0;
  }
  time {
    color: var(--ink-soft);
    font-variant-numeric: tabular-nums;
  }
  [data-undone="true"] {
    color: var(--ink-soft);
    text-decoration: line-through;
  }
  small {
    color: var(--ink-soft);
  }
`;

export function Timeline({ visit, me }: StepProps & { me: Schemas["Me"] }) {
  const entries = useAskVisit(visit, "visit-timeline", {})?.entries ?? [];
  const name = (id: string) => visit.open.team.find((m) => m.id === id)?.name ?? "a former colleague";
  const at = dateFormat("en-GB", {
    timeZone: me.time_zone,
    timeStyle: "short",
    hour12: me.clock_hours === 12,
  });
  if (entries.length === 0) return null;
  return (
    <Card data-timeline>
      <Disclosed summary={`Timeline of the visit, ${entries.length} entries`}>
        <List>
          {entries.map((e) => (
            <li key={`${e.at_ms}${e.type}${e.text}`}>
              <time>{at.format(e.at_ms)}</time>
              <span>
                <span data-undone={!!e.undone}>{e.text}</span>
                {e.undone && <small> undone</small>}
                {e.rejected && <small> not counted: {e.rejected}</small>}
              </span>
              <small>{name(e.author)}</small>
            </li>
          ))}
        </List>
      </Disclosed>
    </Card>
  );
}
