// Ids in words of the trade.
const capitals = new Set(["asis", "psis"]);
export const plain = (id: string) => id.split("-").map((w) => (capitals.has(w) ? w.toUpperCase() : w)).join(" ");
export const sentence = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

export const jointNames: Record<string, string> = { cervical: "Neck", thoracic: "Chest", lumbar: "Low back", scapula: "Shoulder blade" };

/** "cervical.lateral-flexion" as the trade says it: "Neck side-bend". */
export const movementName = (id: string) => {
  const [joint = "", move = ""] = id.split(".");
  const knee = move.match(/^dorsiflexion-knee-(\w+)$/);
  const what = knee ? `dorsiflexion, knee ${knee[1]}` : plain(move.replace("lateral-flexion", "side-bend"));
  return `${jointNames[joint] ?? sentence(plain(joint))} ${what.replace("side bend", "side-bend")}`;
};

/** Number with its unit's degree sign and no needless decimals. */
export const deg = (v: number | undefined) => (v === undefined ? "–" : `${Math.round(v * 10) / 10}°`);
export const one = (v: number | undefined) => (v === undefined ? "–" : String(Math.round(v * 10) / 10));
export const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;

export const day = (iso: string, zone: string) => new Intl.DateTimeFormat("en-GB", { timeZone: zone, day: "numeric", month: "short" }).format(new Date(iso));
export const time = (iso: string, zone: string) => new Intl.DateTimeFormat("en-GB", { timeZone: zone, hour: "2-digit", minute: "2-digit" }).format(new Date(iso));
export const longDay = (d: Date, zone: string) => new Intl.DateTimeFormat("en-GB", { timeZone: zone, weekday: "long", day: "numeric", month: "long" }).format(d);
export const isoDay = (d: Date, zone: string) => new Intl.DateTimeFormat("en-CA", { timeZone: zone }).format(d);
