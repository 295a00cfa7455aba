// What the room of a hold needs of the device: dim light, a screen that stays
// on, tones, a voice, keys.
import { useEffect, useLayoutEffect, useRef } from "react";
import type { Schemas } from "../../api/client";
import { every } from "../../core/clock";
import { saidBy } from "./keys";
import type { RoomPrefs } from "./roomPrefs";
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

/** Coming off is said again until it is done. */
const sayAgainMS = 5000;

/** Sounds and speaks new advice once; a part begun anew is new. */
export function useTones(line: Schemas["Line"], { loudness, spoken }: RoomPrefs, live: boolean) {
  const { phase, advice, rep, place, text } = line;
  const last = useRef("");
  const said = advice.at(-1) ?? "";
  const stamp = [phase, ...advice, rep, place].join(":");
  const insist = live && said === "release-slowly";
  useEffect(() => {
    if (stamp === last.current) return;
    last.current = stamp;
    if (!live) return;
    if (loudness !== "off") play(said, loudness);
    if (spoken) speak(text);
  }, [stamp, said, text, loudness, spoken, live]);
  useEffect(() => {
    if (!insist || loudness === "off") return;
    return every(sayAgainMS, () => play("release-slowly", loudness));
  }, [insist, loudness]);
}

export const canSpeak = () => "speechSynthesis" in globalThis;

export function speak(text: string) {
  if (!canSpeak()) return;
  speechSynthesis.cancel();
  speechSynthesis.speak(new SpeechSynthesisUtterance(text));
}

/** Keys and pedal, wherever the focus is; none while the room is being set. */
export function useKeys(act: Act, onPedal: () => void, pedal: string[], on: boolean) {
  // Laid out with what is shown: after painting, a pedal trodden at once would still
  // mean the step before.
  useLayoutEffect(() => {
    if (!on) return;
    const keys = (e: KeyboardEvent) => {
      // What is typed into a field is no word of the hold.
      if (e.target instanceof HTMLInputElement && e.key !== "Escape") return;
      if (e.repeat || e.ctrlKey || e.metaKey || e.altKey) return;
      const trodden = pedal.includes(e.key);
      const said = trodden ? undefined : saidBy(e.key);
      if (!said && !trodden) return;
      e.preventDefault();
      e.stopPropagation();
      if (said) act(said.event, said.value);
      else onPedal();
    };
    // Before any control takes the key for itself.
    addEventListener("keydown", keys, { capture: true });
    return () => removeEventListener("keydown", keys, { capture: true });
  }, [act, onPedal, pedal, on]);
}
