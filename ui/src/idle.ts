// Signs out when nobody touched the device for a while. Work stays: what is unsent is
// kept for its author, and whoever signs in again is where they were.
import { useEffect } from "react";
import { api } from "./api/client";
import { attendedLately } from "./core/attended";

/** When anything was touched last, by whatever window of this browser. */
const seenAt = "mokren-touched";
const touches = ["pointerdown", "keydown", "wheel", "touchstart"] as const;
const lookEveryMS = 5_000;

export function useIdle(minutes: number | undefined, onOut: () => void) {
  useEffect(() => {
    if (!minutes) return;
    const touched = () => localStorage.setItem(seenAt, String(Date.now()));
    const look = async () => {
      // Hands are on the client while a hold is attended: nobody touches the screen then.
      if (attendedLately()) return touched();
      const since = Date.now() - Number(localStorage.getItem(seenAt) ?? Date.now());
      if (since < minutes * 60_000) return;
      // Without a connection nobody could come back in: it waits for one.
      const out = await api.DELETE("/api/session").catch(() => undefined);
      if (out?.response.ok) onOut();
    };
    touched();
    for (const t of touches) addEventListener(t, touched, { passive: true });
    const timer = setInterval(() => void look(), lookEveryMS);
    return () => {
      for (const t of touches) removeEventListener(t, touched);
      clearInterval(timer);
    };
  }, [minutes, onOut]);
}
