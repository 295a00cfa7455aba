// Writes a new point, or the correction of one.
import type { Schemas } from "../../../api/client";
import { useFigure } from "../../../body/views";
import { uuidv7 } from "../../../core/ids";
import type { LiveVisit } from "../../../core/useVisit";
import type { Felt } from "./chart";
import type { Aimed } from "../body/useAiming";

export function useSave({ write }: LiveVisit, point?: Schemas["Point"], aim?: Aimed) {
  const { data: figure } = useFigure(aim?.view ?? "back");
  return (felt: Felt, identity: string | undefined) => {
    if (point) {
      const { point: id, muscle, side, site, figure: on, view, x, y, place } = point;
      write("point-corrected", {
        point: id,
        identity: point.identity,
        muscle,
        side,
        ...(site ? { site } : {}),
        figure: on,
        view,
        x,
        y,
        place,
        ...felt,
      });
    } else if (aim && figure) {
      const { muscle, side, site, place } = aim.candidate;
      write("point-charted", {
        point: uuidv7(),
        ...(identity ? { identity } : {}),
        muscle,
        side,
        ...(site ? { site } : {}),
        figure: figure.version,
        view: aim.view,
        x: aim.x,
        y: aim.y,
        place,
        ...felt,
      });
    }
  };
}
