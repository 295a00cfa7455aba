// @vitest-environment happy-dom
import { QueryClientProvider } from "@tanstack/react-query";
import { renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { describe, expect, it } from "vitest";
import { newQueryClient } from "../../../api/asking";
import type { LiveVisit } from "../../../core/useVisit";
import { usePlan } from "./usePlan";

const steps = ["a", "b", "c"].map((point) => ({ kind: "treat", point }));

/** A session of three points, and what is written to it. */
async function planned(plan: object | undefined) {
  const written: object[] = [];
  const visit = {
    core: { ask: async () => ({ steps, notes: [] }) },
    of: { visit: "v", revision: 1 },
    open: { context: {} },
    state: { plan },
    write: (_: string, body: object) => void written.push(body),
    knows: () => true,
  } as unknown as LiveVisit;
  const client = newQueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  const { result } = renderHook(() => usePlan(visit), { wrapper });
  await waitFor(() => expect(result.current).toBeDefined());
  return { p: result.current as NonNullable<ReturnType<typeof usePlan>>, written };
}

describe("the session", () => {
  it("is of the usual minutes until somebody says", async () => {
    const { p, written } = await planned(undefined);
    expect(p.minutes).toBe(45);
    p.accept();
    expect(written).toEqual([{ minutes: 45 }]);
  });
  it("moves a point in the order, and not past its ends", async () => {
    const { p, written } = await planned({ minutes: 60 });
    p.move("b", -1);
    p.move("a", -1);
    expect(written).toEqual([
      { minutes: 60, order: ["b", "a", "c"] },
      { minutes: 60, order: ["a", "b", "c"] },
    ]);
  });
  it("drops a point, and puts one in that must be in", async () => {
    const { p, written } = await planned({ minutes: 60, order: ["a", "b"], must: ["b"], dropped: ["c"] });
    p.drop("b");
    p.add("c");
    expect(written).toEqual([
      { minutes: 60, order: ["a"], must: [], dropped: ["c", "b"] },
      { minutes: 60, order: ["a", "b", "c"], must: ["b", "c"], dropped: [] },
    ]);
  });
});
