// An upright scale from 0 at the bottom to 10 at the top, touched or drawn along
// with a finger; what the finger rests on is said.
import { useRef, useState } from "react";
import { styled } from "styled-components";

const Scale = styled.div`
  position: relative;
  display: grid;
  grid-template-rows: repeat(11, minmax(0, 1fr));
  gap: 4px;
  touch-action: none;
  cursor: pointer;
  outline-offset: 4px;
  .step {
    display: grid;
    grid-template-columns: 92px minmax(0, 1fr);
    align-items: center;
    border-radius: 12px;
    background: var(--card);
    border: 1px solid var(--line-soft);
    font: 620 30px/1 var(--text);
    font-variant-numeric: tabular-nums;
  }
  .step > span:first-child {
    text-align: center;
  }
  .step > span:last-child {
    font-size: 18px;
    font-weight: 500;
    color: var(--ink-soft);
  }
  .step[data-within="true"] {
    background: var(--accent-soft);
    border-color: var(--accent);
  }
  .step[data-on="true"] {
    background: var(--accent);
    color: var(--accent-ink);
  }
  .step[data-on="true"] > span:last-child {
    color: var(--accent-ink);
  }
`;

const words: Record<number, string> = {
  0: "nothing",
  2: "I feel it",
  4: "clear, easy to bear",
  6: "strong, but I can relax",
  8: "too much",
  10: "the worst there is",
};

const top = 10;
/** A finger that rests so long means the number under it. */
const restMS = 250;

interface Props {
  value?: number;
  onSay: (n: number) => void;
}

export function UprightScale({ value, onSay }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const rest = useRef<number>(undefined);
  const said = useRef<number>(undefined);
  const [drawn, setDrawn] = useState<number>();
  const at = (y: number) => {
    const r = box.current?.getBoundingClientRect();
    if (!r) return 0;
    const share = 1 - (y - r.top) / r.height;
    return Math.max(0, Math.min(top, Math.floor(share * (top + 1))));
  };
  const say = (n: number) => {
    clearTimeout(rest.current);
    if (said.current === n) return;
    said.current = n;
    onSay(n);
  };
  const over = (e: React.PointerEvent) => {
    const n = at(e.clientY);
    setDrawn(n);
    clearTimeout(rest.current);
    rest.current = setTimeout(() => say(n), restMS) as unknown as number;
  };
  const shown = drawn ?? value;
  return (
    <Scale
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label="Your number"
      aria-orientation="vertical"
      aria-valuemin={0}
      aria-valuemax={top}
      aria-valuenow={shown ?? 0}
      aria-valuetext={shown === undefined ? "none yet" : String(shown)}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        said.current = undefined;
        over(e);
      }}
      onPointerMove={(e) => e.buttons > 0 && over(e)}
      onPointerUp={(e) => {
        say(at(e.clientY));
        setDrawn(undefined);
      }}
      onKeyDown={(e) => {
        const step = { ArrowUp: 1, ArrowDown: -1 }[e.key];
        if (!step) return;
        e.preventDefault();
        said.current = undefined;
        say(Math.max(0, Math.min(top, (value ?? 0) + step)));
      }}
    >
      {Array.from({ length: top + 1 }, (_, i) => top - i).map((n) => (
        <div
          key={n}
          className="step"
          data-step={n}
          data-within={shown !== undefined && n < shown}
          data-on={n === shown}
        >
          <span>{n}</span>
          <span>{words[n] ?? ""}</span>
        </div>
      ))}
    </Scale>
  );
}
