import { renderToStaticMarkup } from "react-dom/server";
import { describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { PreviewOf } from "./PreviewOf";

const counts = { clients: 0, visits: 0, events: 0, photos: 0, set: 0, stayed: 0, aside: 0 };
const seen = (more: Partial<Schemas["Preview"]>, n: Partial<typeof counts> = {}): Schemas["Preview"] => ({
  clients: 0,
  visits: 0,
  readings: 0,
  problems: [],
  left: [],
  shown: [],
  counts: { ...counts, ...n },
  ...more,
});
const drawn = (s: Schemas["Preview"]) =>
  renderToStaticMarkup(
    <PreviewOf seen={s} name="all.json" busy={false} onTake={() => {}} onLeave={() => {}} />,
  );

describe("what a file comes to", () => {
  it("says what it brings, what stays, what is left out and what would not stand", () => {
    const html = drawn(
      seen(
        { shown: ["Wren Alder"], left: [{ what: "Coverage", n: 2, at: ["3", "9"] }] },
        { clients: 1, visits: 3, set: 4, stayed: 1, aside: 2 },
      ),
    );
    for (const words of [
      "brings 1 client, 3 visits",
      "Wren Alder",
      "4 settings of the other practice",
      "1 is set otherwise here",
      "Coverage (2): 3; 9",
      "2 entries of it would not have been allowed here",
    ])
      expect(html).toContain(words);
  });
  it("speaks of settings only where there are any", () => {
    expect(drawn(seen({}, { clients: 1 }))).not.toContain("setting");
  });
  it("names every problem by row and field, and cannot be taken in", () => {
    const html = drawn(seen({ problems: [{ row: 3, field: "born_on", given: "31.2.", text: "a day" }] }));
    expect(html).toContain("Entry 3, born_on (“31.2.”): a day");
    expect(html).not.toContain(">Import<");
  });
  it("lets bad entries be left out, and a table's columns be said", () => {
    const problems = [2, 2, 5].map((row) => ({ row, field: "born_on", text: "a day" }));
    const columns = [{ name: "Vorname", field: "" }];
    const html = renderToStaticMarkup(
      <PreviewOf
        seen={seen({ problems, columns, fields: ["given_name"] })}
        busy={false}
        said={{ leave: [], columns: {}, day: "dmy" }}
        onSay={() => {}}
        onLeave={() => {}}
      />,
    );
    for (const words of ["Row 2, born_on", "Leave these 2 entries out", "“Vorname” is", "31.12.2026"])
      expect(html).toContain(words);
  });
  it("does not import what brings nothing", () => {
    expect(drawn(seen({}))).toMatch(/disabled=""[^>]*>Import</);
  });
  it("says what was taken in", () => {
    const html = drawn(seen({ import: "x" }, { clients: 2, set: 1, aside: 1 }));
    expect(html).toContain("Imported: 2 clients, 0 visits, 1 setting of the practice.");
    expect(html).toContain("1 entry did not stand here");
  });
});
