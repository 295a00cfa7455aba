// What the room of a hold needs of the device: dim light, a screen that stays
// on, tones, keys.
import { useEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { pedal, saidBy } from "./keys";
import { play } from "./tones";
import type { Act } from "./useHold";

/** Dim while the screen is shown. */
export function useTableMode() {
  useEffect(() => {
    document.documentElement.dataset.mode = "table";
    return () => {
      delete document.documentElement.dataset.mode;
    };
  }, []);
}

/** The screen stays on, where the device lets it. */
export function useWakeLock() {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    navigator.wakeLock?.request("screen").then(
      (l) => {
        lock = l;
      },
      () => undefined,
    );
    return () => void lock?.release();
  }, []);
}

/** Sounds new advice once. */
export function useTones({ phase, advice }: Schemas["Line"], on: boolean) {
  const last = useRef("");
  const said = advice.at(-1) ?? "";
  const stamp = `${phase}:${advice.join()}`;
  useEffect(() => {
    if (stamp === last.current) return;
    last.current = stamp;
    if (on) play(said);
  }, [stamp, said, on]);
}

/** Keys and pedal, wherever the focus is. */
export function useKeys(act: Act, onPedal: () => void) {
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (e.repeat || e.ctrlKey || e.metaKey || e.altKey) return;
      const said = saidBy(e.key);
      if (!said && !pedal(e.key)) return;
      e.preventDefault();
      e.stopPropagation();
      if (said) act(said.event, said.value);
      else onPedal();
    };
    // Before any control takes the key for itself.
    addEventListener("keydown", keys, { capture: true });
    return () => removeEventListener("keydown", keys, { capture: true });
  }, [act, onPedal]);
}
