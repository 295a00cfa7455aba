// The turn of a tablet. Rules for a width that were inserted one by one can miss it in Chromium; a
// sheet that is taken out and put back is read anew. Text in place of inserted rules would be read
// anew with every component, which costs a first opening a tenth of its time.

/** The widths at which the theme lays things out otherwise (theme.ts). */
const widths = ["(max-width: 1000px)", "(max-width: 860px)", "(max-width: 600px)"];

export function heedTurns() {
  for (const width of widths)
    matchMedia(width).addEventListener("change", () => {
      for (const sheet of document.styleSheets) {
        sheet.disabled = true;
        sheet.disabled = false;
      }
    });
}
