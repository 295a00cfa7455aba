// Ids in words of the trade.
export const plain = (id: string) => id.replaceAll("-", " ");
export const sentence = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

const movements: Record<string, string> = {
  "cervical.rotation": "Neck rotation",
  "cervical.lateral-flexion": "Neck side-bend",
  "lumbar.flexion": "Low back flexion",
  "lumbar.lateral-flexion": "Low back side-bend",
  "ankle.dorsiflexion-knee-straight": "Ankle dorsiflexion, knee straight",
  "ankle.dorsiflexion-knee-bent": "Ankle dorsiflexion, knee bent",
};
export const movementName = (id: string) => movements[id] ?? sentence(plain(id.replace(".", " ")));

/** Number with its unit's degree sign and no needless decimals. */
export const deg = (v: number | undefined) => (v === undefined ? "–" : `${Math.round(v * 10) / 10}°`);
export const one = (v: number | undefined) => (v === undefined ? "–" : String(Math.round(v * 10) / 10));
export const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;

export const day = (iso: string, zone: string) => new Intl.DateTimeFormat("en-GB", { timeZone: zone, day: "numeric", month: "short" }).format(new Date(iso));
export const time = (iso: string, zone: string) => new Intl.DateTimeFormat("en-GB", { timeZone: zone, hour: "2-digit", minute: "2-digit" }).format(new Date(iso));
export const longDay = (d: Date, zone: string) => new Intl.DateTimeFormat("en-GB", { timeZone: zone, weekday: "long", day: "numeric", month: "long" }).format(d);
export const isoDay = (d: Date, zone: string) => new Intl.DateTimeFormat("en-CA", { timeZone: zone }).format(d);
