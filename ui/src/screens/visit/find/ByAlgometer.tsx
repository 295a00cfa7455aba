// Trials with the algometer: how evenly it is pressed, the client's stop by any
// key or the great button, and the rest between trials.
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import type { Core } from "../../../core/core";
import { useAsk } from "../../../core/useAsk";
import { type Presser, pressers, useAlgometer } from "../../../core/useAlgometer";
import { Key } from "../../../parts/controls";
import { Said } from "../../../parts/layout";
import { play } from "../../hold/tones";

const Box = styled.div`
  display: grid;
  gap: var(--s3);
  background: var(--accent-soft);
  border-radius: var(--r2);
  padding: var(--s3) var(--s4);
  .big {
    font: 640 44px/1.1 var(--text);
    font-variant-numeric: tabular-nums;
  }
  .big small {
    font-size: 18px;
    font-weight: 540;
    color: var(--ink-soft);
  }
  .rise {
    position: relative;
    height: 18px;
    border-radius: 9px;
    background: var(--card);
  }
  .rise i {
    display: block;
    height: 100%;
    margin: 0 auto;
    background: var(--accent);
    opacity: 0.25;
  }
  .rise b {
    position: absolute;
    inset-block: -3px;
    width: 6px;
    border-radius: 3px;
    background: var(--ink);
    translate: -50% 0;
  }
  button {
    min-height: 72px;
  }
`;

interface Props {
  core: Core;
  address?: string;
  by: Presser;
  done: number[];
  ramps: number[];
  onTrial: (trials: number[], ramps: number[]) => void;
}

export function ByAlgometer(props: Props) {
  const rules = useAsk(props.core, "algometry", {});
  return rules && <Trials rules={rules} {...props} />;
}

function Trials({ rules, core, address, by, done, ramps, onTrial }: Props & { rules: Rules }) {
  const most = rules.trials;
  const { live, stop } = useAlgometer(done.length < most ? address : undefined, by);
  const [ended, setEnded] = useState<number>();
  const left = useRest(ended, rules.rest_s);
  const stopped = async () => {
    const trial = stop();
    if (!trial || left > 0) return;
    play("taken");
    setEnded(Date.now());
    const got = await core.ask("ppt", { trials: [trial], tip_area_cm2: pressers[by].tipCM2 });
    onTrial([...done, got.kpa], [...ramps.slice(0, done.length), ...got.ramp_kpa_per_s]);
  };
  useAnyKey(stopped, live.pressing, left > 0);
  if (live.error)
    return (
      <Said role="alert" $tone="stop">
        {live.error}
      </Said>
    );
  if (done.length >= most) return <p role="status">Three trials are kept. Undo takes the last one back.</p>;
  return (
    <Box data-algometer>
      <span className="big">
        {Math.round(live.kPa ?? 0)}{" "}
        <small>
          kPa, trial {done.length + 1} of {most}
        </small>
      </span>
      <Rise rules={rules} rise={live.pressing ? live.rise : undefined} />
      <b role="status">{guide(rules, live.pressing, live.rise, left)}</b>
      <Key $tone="stop" isDisabled={!live.pressing || left > 0} onPress={stopped}>
        Stop – it's painful now
        {live.pressing && <kbd>any key, by the client</kbd>}
      </Key>
    </Box>
  );
}

type Rules = Schemas["AlgometryOut"];

function guide(rules: Rules, pressing: boolean, rise: number | undefined, left: number): string {
  if (left > 0) return `Rest ${left} s before the next trial.`;
  if (!pressing) return "Set the tip on the spot, upright, and press evenly.";
  if (rise === undefined) return "Press evenly.";
  if (rise < rules.slow_kpa_per_s) return "Too slow: a little faster.";
  return rise > rules.fast_kpa_per_s
    ? "Too fast: slower."
    : "Good speed – continue until the client stops you.";
}

/** How fast the force rises; the band in which it should lies in the middle. */
function Rise({ rules, rise }: { rules: Rules; rise?: number }) {
  const { slow_kpa_per_s: slow, fast_kpa_per_s: fast } = rules;
  const band = `${((fast - slow) / (fast + slow)) * 100}%`;
  const at = `${Math.min(100, Math.max(0, ((rise ?? 0) / (slow + fast)) * 100))}%`;
  const said = rise === undefined ? "Not pressed" : `${Math.round(rise)} kPa a second`;
  return (
    <div className="rise" role="img" aria-label={said}>
      <i style={{ width: band }} />
      {rise !== undefined && <b style={{ left: at }} />}
    </div>
  );
}

/** Seconds of rest that are left since a trial ended. */
function useRest(ended: number | undefined, restS: number): number {
  const [left, setLeft] = useState(0);
  useEffect(() => {
    if (ended === undefined) return;
    const tick = () => setLeft(Math.max(0, Math.ceil(restS - (Date.now() - ended) / 1000)));
    tick();
    const timer = setInterval(tick, 250);
    return () => clearInterval(timer);
  }, [ended, restS]);
  return left;
}

/** Keys that leave the trial; the others are the client's, or nobody's. */
const leaves = new Set(["Tab", "Shift", "Escape"]);

/** Whatever key the client has in hand stops it. In the rest a key does nothing: the client
 * still has it in hand, and it must not reach the chart. */
function useAnyKey(act: () => void, on: boolean, resting: boolean) {
  const latest = useRef(act);
  latest.current = act;
  useLayoutEffect(() => {
    if (!on && !resting) return;
    const down = (e: KeyboardEvent) => {
      if (leaves.has(e.key)) return;
      e.preventDefault();
      e.stopPropagation();
      if (on && !e.repeat) latest.current();
    };
    addEventListener("keydown", down, { capture: true });
    return () => removeEventListener("keydown", down, { capture: true });
  }, [on, resting]);
}
