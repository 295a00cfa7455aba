// Which views fill the room: those that the core chooses for the work, until somebody
// turns to another; the next piece of work brings its own view again.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../api/client";
import type { Core } from "../core/core";
import { useAsk } from "../core/useAsk";
import { firstViews } from "./figurePath";
import { beside, type View } from "./views";

export interface MainViews {
  views: View[];
  /** Whether they were chosen; before the first answer they are those that a visit begins with. */
  chosen: boolean;
  turn: (view: View) => void;
  /** Two views beside each other, or one again. */
  beside: () => void;
}

type Asked = Schemas["ViewsIn"];

function useTurned(asked: Asked, answer: View[] | undefined): MainViews {
  const key = JSON.stringify(asked);
  const [own, setOwn] = useState<{ key: string; views: View[] }>();
  const chosen = own?.key === key ? own.views : answer;
  const views = chosen ?? firstViews;
  const [one = "front"] = views;
  return {
    views,
    chosen: !!chosen,
    turn: (view) => setOwn({ key, views: [view] }),
    beside: () => setOwn({ key, views: views.length > 1 ? [one] : beside(one) }),
  };
}

export function useMainViews(core: Core, asked: Asked): MainViews {
  return useTurned(asked, useAsk(core, "views", asked)?.views);
}

/** The same on a page that has no core of its own: the server's is asked. */
export function useMainViewsOfServer(asked: Asked): MainViews {
  const { data } = useQuery({
    queryKey: ["views", asked],
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: keepPreviousData,
    queryFn: () => must(api.POST("/api/calc/views", { body: asked })),
  });
  return useTurned(asked, data?.views);
}
