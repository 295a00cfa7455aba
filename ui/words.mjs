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

/** Phrases that were replaced on screen, as docs/words.md lists them. */
const replaced = readFileSync(new URL("../docs/words.md", import.meta.url), "utf8")
  .split("## Phrases that were replaced")[1]
  .split("\n")
  .map((l) => l.match(/^\| (.+) \| (.+) \|$/))
  .filter((m) => m && m[1] !== "not")
  .map(([, not, but]) => ({ not: new RegExp(`\\b${not}\\b`), but }));
if (replaced.length === 0) throw new Error("docs/words.md lists no phrase");

const replacedIn = (text) => replaced.find((r) => r.not.test(text.replace(/\s+/g, " ")));

/** Texts of a file: its strings, templates and what stands between tags. */
function textsOf(path, text) {
  const out = [];
  const look = (n) => {
    if (
      ts.isStringLiteralLike(n) ||
      ts.isJsxText(n) ||
      ts.isTemplateHead(n) ||
      ts.isTemplateMiddleOrTemplateTail(n)
    )
      out.push(n.text);
    ts.forEachChild(n, look);
  };
  look(ts.createSourceFile(path, text, ts.ScriptTarget.Latest, false, ts.ScriptKind.TSX));
  return out;
}

/** Strings of Go files; what a test or a golden file says is not on screen. */
function* goTexts(folder) {
  for (const e of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, e.name);
    if (e.isDirectory()) yield* goTexts(path);
    else if (e.name.endsWith(".go") && !e.name.endsWith("_test.go"))
      for (const m of readFileSync(path, "utf8").matchAll(/"(?:[^"\\\n]|\\.)*"/g)) yield [path, m[0]];
  }
}

let found = 0;
const say = (path, what, to) => {
  found++;
  console.log(`${path}: ${what}: write ${to}`);
};
for (const path of filesIn(new URL("src", import.meta.url).pathname)) {
  const file = readFileSync(path, "utf8");
  for (const name of declared(path, file)) {
    const to = wrong(name);
    if (to) say(path, name, to);
  }
  if (path.includes(".test.")) continue;
  for (const text of textsOf(path, file)) {
    const r = replacedIn(text);
    if (r) say(path, text.trim(), r.but);
  }
}
for (const folder of ["core", "exchange", "api"])
  for (const [path, text] of goTexts(new URL(`../${folder}`, import.meta.url).pathname)) {
    const r = replacedIn(text);
    if (r) say(path, text, r.but);
  }
process.exitCode = found ? 1 : 0;
