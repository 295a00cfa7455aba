/** Born less than eighteen years before a day; false while no day is typed yet. */
export function underAge(born: string, on: Date) {
  const m = born.trim().match(/^(\d{4})-(\d{2})-(\d{2})$/);
  return (
    !!m &&
    new Date(Date.UTC(Number(m[1]) + 18, Number(m[2]) - 1, Number(m[3]))) > on &&
    new Date(born.trim()) <= on
  );
}
