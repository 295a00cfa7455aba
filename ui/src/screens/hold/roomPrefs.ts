// How this device sounds, speaks and is trodden on; kept on the device.
import { useCallback, useState } from "react";

export type Loudness = "off" | "soft" | "loud";

export interface RoomPrefs {
  loudness: Loudness;
  /** What to do now is spoken, where the device has a voice. */
  spoken: boolean;
  /** Keys that a foot pedal sends; each does what the widest key does. */
  pedal: string[];
}

/** A foot pedal sends what it is set to; all of these are the widest key. */
const usual: RoomPrefs = { loudness: "loud", spoken: false, pedal: [" ", "PageDown", "Enter"] };

const place = "mokren.room";

function read(): RoomPrefs {
  try {
    return { ...usual, ...(JSON.parse(localStorage.getItem(place) ?? "{}") as Partial<RoomPrefs>) };
  } catch {
    return usual;
  }
}

export function useRoomPrefs(): [RoomPrefs, (p: Partial<RoomPrefs>) => void] {
  const [prefs, setPrefs] = useState(read);
  const keep = useCallback((p: Partial<RoomPrefs>) => {
    setPrefs((old) => {
      const now = { ...old, ...p };
      try {
        localStorage.setItem(place, JSON.stringify(now));
      } catch {
        // a device that keeps nothing has them for as long as the page is open
      }
      return now;
    });
  }, []);
  return [prefs, keep];
}

const names: Record<string, string> = { " ": "Space", PageDown: "Page down", Enter: "Enter" };
export const keyName = (key: string) => names[key] ?? key;
