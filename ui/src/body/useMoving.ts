// Whether what is shown is on its way. While it is, the body is drawn without its
// finest strokes and its blur, so that every step is there in the next frame.
import { useEffect, useState } from "react";

const stillMS = 160;

export function useMoving(what: unknown): boolean {
  const [rested, setRested] = useState(what);
  useEffect(() => {
    const rest = setTimeout(() => setRested(what), stillMS);
    return () => clearTimeout(rest);
  }, [what]);
  return rested !== what;
}
