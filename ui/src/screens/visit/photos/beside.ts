/** How a second photograph is shown with the first. */
export interface Beside {
  grid: boolean;
  /** The second picture. */
  other?: string;
  how: "side by side" | "swiped";
  /** Where a swiped picture begins, percent of the width. */
  cut: number;
}
