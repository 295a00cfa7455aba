// How questions to the server are asked again.
import { QueryClient } from "@tanstack/react-query";
import { isOutage, Problem } from "./client";

const againMS = 5_000;

/** What an outage left without an answer is asked for until there is one: the
 * page says that it is tried again. */
const againInAnOutage = ({ state }: { state: { status: string; error: unknown } }) =>
  state.status === "error" && isOutage(state.error) ? againMS : false;

export const newQueryClient = () =>
  new QueryClient({
    defaultOptions: {
      queries: {
        retry: (n, e) => (e instanceof Problem && e.status > 0 && e.status < 500 ? false : n < 5),
        refetchInterval: againInAnOutage,
        staleTime: 10_000,
      },
    },
  });
