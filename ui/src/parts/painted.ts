/** Calls back when what is shown now has been painted. */
export const painted = (done: () => void) => requestAnimationFrame(() => setTimeout(done));
