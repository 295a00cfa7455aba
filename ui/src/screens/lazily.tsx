// A screen whose script is fetched when it is needed, or ahead of that. Fetched
// ahead, it is there at once: a lazy component would still show "Opening…", and
// keep it for a while.
import type { QueryClient } from "@tanstack/react-query";
import { type ComponentType, lazy, useState } from "react";
import type { Schemas } from "../api/client";
import { untilThere } from "../untilThere";

export interface ScreenModule<P> {
  default: ComponentType<P>;
  /** Asks for what a screen consists of: one that is opened by its address is first drawn with it. */
  before?: (queries: QueryClient, me: Schemas["Me"], params: Record<string, string>) => Promise<unknown>;
}

export function lazily<P extends object>(load: () => Promise<ScreenModule<P>>) {
  let Here: ComponentType<P> | undefined;
  const fetched = async () => {
    const module = await load();
    Here = module.default;
    return module;
  };
  // Without the network a screen waits for its script, and does not take the page with it.
  const Later = lazy(() => untilThere(fetched));
  const now = () => Here ?? (Later as ComponentType<P>);
  const Screen = (props: P) => {
    // Decided once: what is mounted stays mounted when the script has come.
    const [Shown] = useState<ComponentType<P>>(now);
    return <Shown {...props} />;
  };
  return Object.assign(Screen, { ahead: () => fetched().catch(() => undefined) });
}
