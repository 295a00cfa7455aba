import { useQueryClient } from "@tanstack/react-query";
import { useAsk } from "../../../core/useAsk";
import { api, must, type Schemas } from "../../../api/client";
import { Tuned } from "../../../parts/Tuned";
import type { StepProps } from "../StepProps";
import { useWeights } from "./useRanking";

/** What each kind of finding weighs, with its source; the practice may set its
 * own within bounds, and go back. */
export function Weights({ visit }: StepProps) {
  const list = useAsk(visit.core, "evidence", {})?.evidence ?? [];
  const queries = useQueryClient();
  const own = useWeights();
  const keep = async (call: Promise<Schemas["Weights"]>) => queries.setQueryData(["weights"], await call);
  const rows = list.map((e) => {
    const r = own[e.id] ?? e.ratio;
    const path = { path: { id: e.id } };
    const set = (over: Partial<Schemas["Ratio"]>) =>
      keep(must(api.PUT("/api/evidence/{id}", { params: path, body: { ...r, ...over } })));
    return {
      id: e.id,
      name: e.name,
      source: e.source,
      fields: [
        {
          label: "when present",
          value: r.plus,
          min: 1,
          max: 50,
          step: 0.1,
          onSet: (plus: number) => set({ plus }),
        },
        {
          label: "when absent",
          value: r.minus,
          min: 0.05,
          max: 1,
          step: 0.05,
          onSet: (minus: number) => set({ minus }),
        },
      ],
      ...(own[e.id] ? { onReset: () => keep(must(api.DELETE("/api/evidence/{id}", { params: path }))) } : {}),
    };
  });
  return (
    <Tuned
      name="weights"
      summary="How findings are weighted"
      note="Likelihood ratios: how many times likelier when present, and when looked for and absent. Bounds 1–50 and 0.05–1."
      rows={rows}
    />
  );
}
