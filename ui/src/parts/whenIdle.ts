// What may wait until a screen is there.

/** At the latest so long after it was wanted. */
const latestMS = 1000;
/** Where a browser does not say when it is idle. */
const soonMS = 100;

/** Does something when the page has nothing else to do; what it gives calls that off. */
export function whenIdle(work: () => void): () => void {
  if (typeof requestIdleCallback === "undefined") {
    const timer = setTimeout(work, soonMS);
    return () => clearTimeout(timer);
  }
  const asked = requestIdleCallback(work, { timeout: latestMS });
  return () => cancelIdleCallback(asked);
}
