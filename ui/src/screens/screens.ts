// The screens by their names in the table of routes.
import type { Schemas } from "../api/client";
import { lazily, type ScreenModule } from "./lazily";
import { load } from "./load";

export type Screen = ReturnType<typeof lazily<{ me: Schemas["Me"] }>>;

/** Fetches the script of a screen; a screen that is here is shown at once. */
export const fetchScreen = (name: string) => screens[name]?.ahead();

export const screens = Object.fromEntries(
  Object.entries(load).map(([name, fetched]) => [
    name,
    lazily(fetched as () => Promise<ScreenModule<{ me: Schemas["Me"] }>>),
  ]),
) as Record<string, Screen>;
