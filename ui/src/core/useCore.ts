// The core for screens that need it without a visit.
import { useEffect, useState } from "react";
import { type Core, loadCore } from "./core";

export function useCore(): { core?: Core; error?: Error; retry: () => void } {
  const [core, setCore] = useState<Core>();
  const [error, setError] = useState<Error>();
  const [tries, setTries] = useState(0);
  useEffect(() => {
    let gone = false;
    setError(undefined);
    loadCore()
      .then((c) => !gone && setCore(c))
      .catch((e) => !gone && setError(e));
    return () => {
      gone = true;
    };
  }, [tries]);
  return { core, error, retry: () => setTries((n) => n + 1) };
}
