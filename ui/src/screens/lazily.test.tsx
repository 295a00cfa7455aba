// @vitest-environment happy-dom
import { act, cleanup, render, screen } from "@testing-library/react";
import { Suspense } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { lazily } from "./lazily";

const line = { away: false, asked: 0 };
const load = async () => {
  line.asked += 1;
  if (line.away) throw new TypeError("Failed to fetch");
  return { default: () => <p>There.</p> };
};
const shown = () => screen.getByRole("paragraph").textContent;

describe("a screen whose script is fetched when it is needed", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    Object.assign(line, { away: false, asked: 0 });
  });
  afterEach(() => {
    cleanup();
    vi.useRealTimers();
  });

  it("waits for it while the network is away, and shows it then", async () => {
    line.away = true;
    const Screen = lazily(load);
    await act(async () =>
      render(<Screen />, {
        wrapper: ({ children }) => <Suspense fallback={<p>Opening…</p>}>{children}</Suspense>,
      }),
    );
    await act(() => vi.advanceTimersByTimeAsync(2_500));
    expect(shown()).toBe("Opening…");
    expect(line.asked).toBe(3);
    line.away = false;
    await act(() => vi.advanceTimersByTimeAsync(1_000));
    expect(shown()).toBe("There.");
  });

  it("shows at once what was fetched ahead", async () => {
    const Screen = lazily(load);
    await Screen.ahead();
    render(<Screen />);
    expect(shown()).toBe("There.");
    expect(line.asked).toBe(1);
  });
});
