// A script that does not come is asked for again, until it is there.

/** So long after it did not come. */
const againMS = 1_000;

/** Fetches a script, however often that takes; missing hears of each time it did not come. */
export async function untilThere<T>(load: () => Promise<T>, missing?: () => void): Promise<T> {
  for (;;) {
    try {
      return await load();
    } catch {
      missing?.();
      await new Promise((again) => setTimeout(again, againMS));
    }
  }
}
