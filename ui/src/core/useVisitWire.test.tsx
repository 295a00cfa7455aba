// @vitest-environment happy-dom
import { act, cleanup, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useVisitWire } from "./useVisitWire";

interface Wire {
  onmessage?: (m: { data: string }) => void;
  close: () => void;
}

const wire: Wire = { close: () => undefined };

function Pad() {
  return <output>{useVisitWire("v", true)}</output>;
}

const shown = () => screen.getByRole("status").textContent;
const pass = (ms: number) => act(() => vi.advanceTimersByTime(ms));
const beat = () => act(() => wire.onmessage?.({ data: '{"pad":true}' }));

describe("the client's pad", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal(
      "WebSocket",
      vi.fn(function () {
        return wire;
      }),
    );
  });
  afterEach(() => {
    cleanup();
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("is there while it beats, and lost within three seconds of its last word", () => {
    render(<Pad />);
    expect(shown()).toBe("never");
    for (let i = 0; i < 4; i++) {
      beat();
      expect(shown()).toBe("there");
      pass(2000);
      expect(shown()).toBe("there");
    }
    beat();
    pass(3000);
    expect(shown()).toBe("lost");
    beat();
    expect(shown()).toBe("there");
  });
});
