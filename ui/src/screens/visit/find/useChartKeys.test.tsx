// @vitest-environment happy-dom
import { cleanup, render, screen } from "@testing-library/react";
import { useLayoutEffect, useState } from "react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { fresh, type Chart } from "./chart";
import { useChartKeys } from "./useChartKeys";
import { useSearchKeys } from "./useSearchKeys";

/** A key that comes in the moment in which its screen is shown: laid out, not painted. */
function AtOnce({ keys, children }: { keys: string; children: React.ReactNode }) {
  useLayoutEffect(() => {
    for (const k of keys)
      document.body.dispatchEvent(new KeyboardEvent("keydown", { key: k, bubbles: true }));
  }, [keys]);
  return children;
}

const save = vi.fn();

function Charting() {
  const [c, setC] = useState<Chart>(() => fresh());
  useChartKeys({
    c,
    set: (over) => setC((old) => ({ ...old, ...over })),
    save,
    asUsual: () => undefined,
    nowhere: () => undefined,
  });
  return <output>{c.nprs}</output>;
}

afterEach(cleanup);

describe("keys", () => {
  it("take the number that is typed in the moment the form is shown", () => {
    render(
      <AtOnce keys="6">
        <Charting />
      </AtOnce>,
    );
    expect(screen.getByRole("status").textContent).toBe("6");
  });

  it("of the search are heard in the moment it is shown", () => {
    const found = vi.fn();
    function Search() {
      useSearchKeys({ forth: found, back: found, found, nothing: found, away: found });
      return null;
    }
    render(
      <AtOnce keys="c">
        <Search />
      </AtOnce>,
    );
    expect(found).toHaveBeenCalledTimes(1);
  });
});
