// Regions by name, laid on a view: where something was felt.
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, must, type Schemas } from "../../api/client";
import { figureVersion } from "../../body/figurePath";
import { type View } from "../../body/views";
import type { Zone } from "../../body/Zones";

/** The cells of a view; kept for good, as the drawing is. */
const useLattice = (view: View, wanted: boolean) =>
  useQuery({
    queryKey: ["lattice", view],
    enabled: wanted,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      must(
        api.GET("/api/figure/{view}/lattice", {
          params: { path: { view }, query: { figure: figureVersion } },
        }),
      ),
  }).data;

/** The regions in which something was felt, as the client's own referral is drawn. */
export function useFelt(view: View, places: Schemas["Place"][]): Zone[] {
  const lattice = useLattice(view, places.length > 0);
  return useMemo(() => {
    if (!lattice || places.length === 0) return [];
    const inIt = (c: Schemas["LatticeCell"]) =>
      places.some(
        (p) => lattice.regions[c.g] === p.region && (c.s === "midline" || !p.side || c.s === p.side),
      );
    return [{ kind: "felt", size: lattice.size, cells: lattice.cells.filter(inIt).map((c) => [c.x, c.y]) }];
  }, [lattice, places]);
}
