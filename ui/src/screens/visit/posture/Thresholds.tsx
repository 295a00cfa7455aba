import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, must, type Schemas } from "../../../api/client";
import { Tuned } from "../../../parts/Tuned";
import type { StepProps } from "../StepProps";

/** From where on each reading is flagged, for this practice. A change judges
 * the readings anew at once. */
export function Thresholds({ visit }: StepProps) {
  const list = visit.core.lists.thresholds;
  const queries = useQueryClient();
  const own =
    useQuery({ queryKey: ["thresholds"], queryFn: () => must(api.GET("/api/thresholds")) }).data
      ?.thresholds ?? visit.open.context.thresholds;
  const keep = async (call: Promise<Schemas["OwnThresholds"]>) => {
    const t = await call;
    queries.setQueryData(["thresholds"], t);
    visit.rejudge({ ...visit.open.context, thresholds: t.thresholds });
  };
  const rows = list.map((t) => ({
    id: t.id,
    name: t.name,
    source: own[t.id] === undefined ? t.source : "set by this practice",
    fields: [
      {
        label: t.unit,
        value: own[t.id] ?? t.value,
        min: t.min,
        max: t.max,
        step: 0.5,
        onSet: (value: number) =>
          keep(
            must(
              api.PUT("/api/thresholds/{id}", {
                params: { path: { id: t.id } },
                body: { value },
              }),
            ),
          ),
      },
    ],
    ...(own[t.id] === undefined
      ? {}
      : {
          onReset: () => keep(must(api.DELETE("/api/thresholds/{id}", { params: { path: { id: t.id } } }))),
        }),
  }));
  return (
    <Tuned
      name="thresholds"
      summary="When is it flagged?"
      note="Working defaults; below them a difference is noted, not hidden. The practice may set its own within bounds."
      rows={rows}
    />
  );
}
