// What stands below the first things of a screen: they are drawn first, and this behind them.
import { type ReactNode, startTransition, useEffect, useState } from "react";

export function Below({ children }: { children: ReactNode }) {
  const [first, setFirst] = useState(true);
  useEffect(() => {
    const frame = requestAnimationFrame(() => startTransition(() => setFirst(false)));
    return () => cancelAnimationFrame(frame);
  }, []);
  return first ? null : children;
}
