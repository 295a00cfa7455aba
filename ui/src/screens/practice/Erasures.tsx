// What was erased for good: when, by whom, why, how much; no name.
import { useQuery } from "@tanstack/react-query";
import { api, must } from "../../api/client";
import { Card } from "../../parts/controls";
import { Plain, Ruled } from "../../parts/layout";
import { count } from "../../parts/words";

export function Erasures({ at }: { at: Intl.DateTimeFormat }) {
  const q = useQuery({ queryKey: ["erasures"], queryFn: () => must(api.GET("/api/erasures")) });
  if (!q.data || q.data.items.length === 0) return null;
  return (
    <Card $gap={2} data-erasures>
      <h2>Erased records</h2>
      <p className="quiet">
        After restoring a backup that is older than one of these, erase the record again.
      </p>
      <Plain>
        {q.data.items.map((e) => (
          <Ruled as="li" key={e.client} $cols="minmax(0, 1fr) auto" $gap={3}>
            <span>
              {e.reason}, {count(e.visits, "visit")}
            </span>
            <span className="quiet">
              {e.by}, {at.format(new Date(e.at))}
            </span>
          </Ruled>
        ))}
      </Plain>
    </Card>
  );
}
