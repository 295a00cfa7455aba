// A finger on the body: while it is down it feels what it meets, in every frame; when it is lifted
// it was a press, or, where it moved, a stroke.
import { type PointerEvent, type RefObject, useCallback, useEffect, useRef, useState } from "react";
import { placeOn, type View } from "../../../body/views";
import { inLine } from "./FeltLine";
import { shake, silence, soundOf } from "./felt";
import type { Doing } from "./useExercise";

interface Place {
  x: number;
  y: number;
}

/** So far in units of the view a press may wander and is no stroke. */
const strokeFrom = 5;

export function useFinger(
  svg: RefObject<SVGSVGElement | null>,
  view: View,
  newtons: number,
  sound: boolean,
  { feel, act }: Pick<Doing, "feel" | "act">,
) {
  const [line, setLine] = useState<number[]>([]);
  const [finger, setFinger] = useState<{ from: Place; at: Place }>();
  const down = useRef<{ from: Place; at: Place }>(undefined);
  const wanted = useRef(0);
  // One question at a time: an exam's server is farther than the next frame.
  const asking = useRef(false);
  const force = useRef(newtons);
  force.current = newtons;

  const feelAt = useCallback(() => {
    wanted.current = 0;
    const at = down.current?.at;
    if (!at || asking.current) return;
    asking.current = true;
    const done = () => {
      asking.current = false;
      const now = down.current?.at;
      if (now && (now.x !== at.x || now.y !== at.y)) wanted.current ||= requestAnimationFrame(latest.current);
    };
    void feel({ view, ...at, force_n: force.current })
      .then((n) => {
        if (!down.current) return;
        setLine((old) => [...old.slice(1 - inLine), n]);
        if (sound) soundOf(n);
        shake(n);
      })
      .finally(done);
  }, [feel, view, sound]);
  const latest = useRef(feelAt);
  latest.current = feelAt;
  const soon = useCallback(() => {
    wanted.current ||= requestAnimationFrame(feelAt);
  }, [feelAt]);
  // The force is changed while the finger stays.
  useEffect(() => {
    if (down.current) soon();
  }, [newtons, soon]);
  useEffect(() => silence, []);

  const begin = (e: PointerEvent) => {
    if (e.button !== 0 || !e.isPrimary) return;
    const at = placeOn(svg.current, e);
    down.current = { from: at, at };
    setFinger(down.current);
    soon();
  };
  const move = (e: PointerEvent) => {
    if (!down.current) return;
    down.current = { from: down.current.from, at: placeOn(svg.current, e) };
    setFinger(down.current);
    soon();
  };
  const lift = () => {
    const was = down.current;
    down.current = undefined;
    silence();
    if (!was) return;
    const { from, at } = was;
    const away = Math.hypot(at.x - from.x, at.y - from.y);
    const force_n = Math.round(force.current * 10) / 10;
    if (away < strokeFrom) void act({ action: "press", view, ...at, force_n });
    else void act({ action: "stroke", view, ...from, to_x: at.x, to_y: at.y, force_n });
  };
  const leave = () => {
    down.current = undefined;
    setFinger(undefined);
    silence();
  };
  return { line, finger, begin, move, lift, leave };
}
