// Keeps terms out of the front end that were replaced by plainer ones: the names of files and
// of what is declared in them, read by the compiler's parser. See cmd/words for the Go side.
import { readdirSync, readFileSync } from "node:fs";
import { basename, join } from "node:path";
import ts from "typescript";

/** What to write for a word of a name, wherever it stands in it. */
const instead = new Map(
  Object.entries({
    steering: "strategy",
    school: "protocol",
    bracket: "bounds",
    jotted: "writeAhead",
    jot: "writeAhead",
    trouble: "error",
    standing: "syncStatus",
    door: "sign-in, or what it leads to",
  }),
);
/** Names that may not be declared as a whole. */
const names = new Map(
  Object.entries({
    headStart: "prefetch",
    keepUp: "serviceWorkerUpdate",
    Written: "UnitPreferences",
    Gone: "Cancelled",
    Told: "what it holds",
    useShown: "useBodyLayers",
    useFits: "useMuscleFit",
    useLaid: "useMuscleShape",
  }),
);

const wordsOf = (name) => name.match(/[A-Z]?[a-z0-9]+|[A-Z]+/g) ?? [];
export const wrong = (name) =>
  names.get(name) ??
  wordsOf(name)
    .map((w) => instead.get(w.toLowerCase().replace(/s$/, "")))
    .find(Boolean);

/** The names that a file declares at its top. */
export function declared(path, text) {
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, false, ts.ScriptKind.TSX);
  const out = [basename(path).replace(/\..*$/, "")];
  for (const s of file.statements) {
    if (s.name?.text) out.push(s.name.text);
    for (const d of s.declarationList?.declarations ?? []) if (d.name.text) out.push(d.name.text);
  }
  return out;
}

function* filesIn(folder) {
  for (const e of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, e.name);
    if (e.isDirectory()) yield* filesIn(path);
    else if (/\.tsx?$/.test(e.name) && e.name !== "schema.d.ts") yield path;
  }
}

let found = 0;
for (const path of filesIn(new URL("src", import.meta.url).pathname)) {
  for (const name of declared(path, readFileSync(path, "utf8"))) {
    const to = wrong(name);
    if (!to) continue;
    found++;
    console.log(`${path}: ${name}: write ${to}`);
  }
}
process.exitCode = found ? 1 : 0;
