// Asking the core from a screen. An answer to an older question is dropped; until the
// new one is here the old one shows, so that nothing flickers.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Answer, type Core, type Input, isRefusal, type Name } from "./core";
import type { LiveVisit } from "./useVisit";

/** What the answer to a question about a visit still needs: the visit is known. */
type Rest<N extends Name> = Omit<Input<N>, "visit" | "revision">;

/** A core that gave no answer is asked again; a refusal is its answer. */
const asksAgain = (failures: number, e: Error) => failures < 3 && !isRefusal(e);

/** The core's answer; undefined before the first, and while nothing is asked. */
export function useAsk<N extends Name>(
  core: Core | undefined,
  name: N,
  input: Input<N> | undefined,
): Answer<N> | undefined {
  const { data } = useQuery({
    queryKey: ["core", name, input],
    queryFn: () => (core as Core).ask(name, input as Input<N>),
    enabled: !!core && input !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
    retry: asksAgain,
    networkMode: "always",
    structuralSharing: false,
    placeholderData: keepPreviousData,
  });
  return input === undefined ? undefined : data;
}

/** The same of a visit as it stands on screen; asked when the core knows that. */
export function useAskVisit<N extends Name>(
  { core, of }: LiveVisit,
  name: N,
  rest: Rest<N> | undefined,
): Answer<N> | undefined {
  return useAsk(core, name, of && rest && ({ ...rest, ...of } as Input<N>));
}

/** One question for each key, as useAsk; the answers that are here. */
export function useAskAll<N extends Name>(
  core: Core,
  name: N,
  inputs: Record<string, Input<N>>,
): Record<string, Answer<N>> | undefined {
  const { data } = useQuery({
    queryKey: ["core", name, "all", inputs],
    queryFn: async () =>
      Object.fromEntries(
        await Promise.all(
          Object.entries(inputs).map(async ([k, i]) => [k, await core.ask(name, i)] as const),
        ),
      ) as Record<string, Answer<N>>,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 30_000,
    retry: asksAgain,
    networkMode: "always",
    structuralSharing: false,
    placeholderData: keepPreviousData,
  });
  return data;
}
