// Work that one tab does for all.

/** Does it unless another tab is at it, and says whether it did. Without locks each tab does it: it must
 * be safe to do twice. */
export async function inOneTab(name: string, work: () => Promise<void>): Promise<boolean> {
  if (!globalThis.navigator?.locks) {
    await work();
    return true;
  }
  return navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
    if (lock) await work();
    return !!lock;
  });
}
