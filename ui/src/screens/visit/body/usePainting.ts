// The pain drawing of the visit, the tool, and an earlier drawing beneath.
import { useMemo, useState } from "react";
import { fromStrokes } from "../../../body/drawing";
import { firstTool } from "../../../body/PainTools";
import type { LiveVisit } from "../../../core/useVisit";

export function usePainting({ open, state }: LiveVisit) {
  const [tool, setTool] = useState(firstTool);
  /** The visit whose drawing lies under this one's. */
  const [compare, setCompare] = useState<string>();
  const drawing = useMemo(() => fromStrokes(state.drawing), [state.drawing]);
  const before = useMemo(() => {
    const d = open.earlier_drawings.find((x) => x.visit === compare);
    return d && fromStrokes(d.strokes);
  }, [open.earlier_drawings, compare]);
  return { tool, setTool, compare, setCompare, drawing, before };
}
