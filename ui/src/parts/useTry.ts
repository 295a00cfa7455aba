// One thing that is tried with the server: whether it runs, and why it was refused.
import { useState } from "react";
import { Problem } from "../api/client";

export function useTry() {
  const [error, setError] = useState<Problem>();
  const [busy, setBusy] = useState(false);
  /** Gives whether it worked. */
  const run = async (act: () => Promise<unknown>) => {
    setBusy(true);
    setError(undefined);
    try {
      await act();
      return true;
    } catch (x) {
      setError(x instanceof Problem ? x : new Problem(0, (x as Error).message));
      return false;
    } finally {
      setBusy(false);
    }
  };
  /** Says what is missing before anything is sent; gives whether nothing is. */
  const complete = (missing: Record<string, string | false | undefined>) => {
    const fields = Object.fromEntries(Object.entries(missing).filter(([, v]) => v)) as Record<string, string>;
    const none = Object.keys(fields).length === 0;
    setError(none ? undefined : new Problem(422, "", fields));
    return none;
  };
  return { error, busy, run, complete, fields: error?.fields ?? {} };
}
