// Where a step may be done: a region, a muscle, or each point that is charted.
import type { Core } from "../../core/core";
import { plain, sentence } from "../../parts/words";

export interface Places {
  all: string[];
  name: (where: string) => string;
}

const points = "points";

export function placesOf(core: Core, regions: string[]): Places {
  const muscles = new Map(core.lists.muscles.map((m) => [m.id as string, m.name]));
  const name = (where: string) => {
    const [id = "", site] = where.split(":");
    if (id === points) return "Each charted point";
    const known = muscles.get(id) ?? sentence(plain(id));
    return site ? `${known}, ${plain(site)}` : known;
  };
  return { all: [points, ...regions, ...muscles.keys()], name };
}
