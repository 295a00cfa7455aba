// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { Schemas } from "../../api/client";
import { UnitPreferencesContext } from "../../parts/unitPreferences";
import { Compare } from "./Compare";

const rows = [
  { kind: "area", id: "area", side: "", name: "Pain area", unit: "cm²", before: 98.4, after: 20 },
  { kind: "movement", id: "m", side: "left", name: "cervical.rotation", unit: "°", before: 50, after: 62 },
] as Schemas["Comparison"][];

function shown(units: "metric" | "imperial") {
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: Number.POSITIVE_INFINITY } } });
  queries.setQueryData(["compare", "c", "a", "b"], { items: rows });
  const moments = [
    { visit: "a", date: "2026-11-02" },
    { visit: "b", date: "2026-11-30" },
  ];
  render(
    <QueryClientProvider client={queries}>
      <UnitPreferencesContext value={{ units, clock_hours: 24 }}>
        <Compare client="c" moments={moments} />
      </UnitPreferencesContext>
    </QueryClientProvider>,
  );
  return screen.getByRole("table").textContent;
}

describe("two dates beside each other", () => {
  afterEach(cleanup);
  it("gives every value its unit", () => expect(shown("metric")).toMatch(/98\.4 cm².*20 cm².*50°.*62°/));
  it("follows the practice's units", () => {
    expect(shown("imperial")).toMatch(/15\.3 in².*3\.1 in²/);
    expect(screen.getByRole("table").textContent).not.toContain("cm");
  });
});
