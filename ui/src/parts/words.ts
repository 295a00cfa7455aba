// Ids in words of the trade.
import { dateFormat } from "./dates";

const capitals = new Set(["asis", "psis"]);
export const plain = (id: string) =>
  id
    .split("-")
    .map((w) => (capitals.has(w) ? w.toUpperCase() : w))
    .join(" ");
export const sentence = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

export const jointNames: Record<string, string> = {
  cervical: "Neck",
  thoracic: "Chest",
  lumbar: "Low back",
  scapula: "Shoulder blade",
};

/** "cervical.lateral-flexion" as the trade says it: "Neck side-bend". */
export const movementName = (id: string) => {
  const [joint = "", move = ""] = id.split(".");
  const knee = move.match(/^dorsiflexion-knee-(\w+)$/);
  const what = knee ? `dorsiflexion, knee ${knee[1]}` : plain(move.replace("lateral-flexion", "side-bend"));
  return `${jointNames[joint] ?? sentence(plain(joint))} ${what.replace("side bend", "side-bend")}`;
};

const everyday: Record<string, string> = {
  "cervical.rotation": "Turning the head",
  "cervical.lateral-flexion": "Ear to shoulder",
  "cervical.flexion": "Chin to chest",
  "cervical.extension": "Looking up",
  "thoracic.rotation": "Turning the chest",
  "lumbar.flexion": "Bending forward",
  "lumbar.extension": "Bending back",
  "lumbar.lateral-flexion": "Bending sideways",
  "jaw.opening": "Opening the mouth",
  "shoulder.flexion": "Arm up in front",
  "shoulder.abduction": "Arm up at the side",
  "shoulder.extension": "Arm back",
  "shoulder.internal-rotation": "Turning the arm in",
  "shoulder.external-rotation": "Turning the arm out",
  "hip.flexion": "Knee to chest",
  "hip.extension": "Leg back",
  "hip.abduction": "Leg out to the side",
  "hip.internal-rotation": "Turning the leg in",
  "hip.external-rotation": "Turning the leg out",
  "knee.flexion": "Bending the knee",
  "knee.extension": "Straightening the knee",
  "ankle.dorsiflexion-knee-straight": "Foot up, knee straight",
  "ankle.dorsiflexion-knee-bent": "Foot up, knee bent",
  "ankle.plantarflexion": "Pointing the foot",
  "great-toe.extension": "Great toe up",
};
/** A movement in everyday words, for the client. */
export const plainMovement = (id: string) => everyday[id] ?? movementName(id);

/** Number with its unit's degree sign and no needless decimals. */
export const deg = (v: number | undefined) => (v === undefined ? "–" : `${Math.round(v * 10) / 10}°`);
export const one = (v: number | undefined) => (v === undefined ? "–" : String(Math.round(v * 10) / 10));
/** Ranges and numbers with their units stay on one line: "1–2 cm". */
export const unbroken = (text: string) =>
  text
    .replace(/(\d)([–-])(\d)/g, "$1\u2060$2\u2060$3")
    .replace(/(\d) (cm|mm|s|min|N|kPa|kg|%|of \d)/g, "$1\u00a0$2");

/** What there is of it, one after the other. */
export const listed = (...parts: (string | false | undefined)[]) => parts.filter(Boolean).join(", ");

/** "7 → 5"; what was taken once only says so. */
export function beforeAfter(
  before: number | undefined,
  after: number | undefined,
  write: (v: number) => string,
) {
  if (before === undefined) return after === undefined ? "not taken" : `${write(after)} afterwards`;
  return after === undefined ? `${write(before)}, not rechecked` : `${write(before)} → ${write(after)}`;
}
export const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, "0")}`;

export const day = (iso: string, zone: string) =>
  dateFormat("en-GB", { timeZone: zone, day: "numeric", month: "short" }).format(new Date(iso));
export const time = (iso: string, zone: string) =>
  dateFormat("en-GB", { timeZone: zone, hour: "2-digit", minute: "2-digit" }).format(new Date(iso));
export const longDay = (d: Date, zone: string) => dayWords(isoDay(d, zone));

const weekdays = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];
const months = "January February March April May June July August September October November December".split(
  " ",
);
/** "Wednesday 2 December". Without the browser's tables of dates, which take as long to load as a screen
 * takes to draw. */
export const dayWords = (isoDate: string) => {
  const d = new Date(`${isoDate}T00:00:00Z`);
  return `${weekdays[d.getUTCDay()]} ${d.getUTCDate()} ${months[d.getUTCMonth()]}`;
};
export const isoDay = (d: Date, zone: string) =>
  dateFormat("en-GB", { timeZone: zone, year: "numeric", month: "2-digit", day: "2-digit" })
    .format(d)
    .split("/")
    .reverse()
    .join("-");

/** "1 stage", "2 stages". */
export const count = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** How the client lies or sits: "on the left side", "prone". */
export const positionName = (id: string) =>
  id.startsWith("side-lying-") ? `on the ${id.slice("side-lying-".length)} side` : plain(id);

/** How a muscle is set, as one says it: on stretch, on slack. */
export const setName = (set = "") => (set === "tension" ? "stretch" : set);
