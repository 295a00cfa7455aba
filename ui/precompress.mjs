// Writes a brotli twin beside every script, style and WebAssembly file of a folder, so that
// the server never compresses.
//
//   node ui/precompress.mjs api/web/dist/assets
//
// What brotli makes of the core differs by a percent with its block size and how it codes
// distances, and in no way that could be foretold: both settings are tried, the smaller stays.
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { extname, join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants as c } from "node:zlib";

const compress = promisify(brotliCompress);
const best = { [c.BROTLI_PARAM_QUALITY]: 11, [c.BROTLI_PARAM_LGWIN]: 24 };
const settings = [
  best,
  {
    ...best,
    [c.BROTLI_PARAM_LGBLOCK]: 20,
    [c.BROTLI_PARAM_NPOSTFIX]: 2,
    [c.BROTLI_PARAM_NDIRECT]: 32,
  },
];

const folder = process.argv[2];
for (const name of readdirSync(folder)) {
  const kind = extname(name);
  if (![".js", ".css", ".wasm"].includes(kind)) continue;
  const raw = readFileSync(join(folder, name));
  const tried = kind === ".wasm" ? settings : [best];
  const made = await Promise.all(tried.map((params) => compress(raw, { params })));
  const smallest = made.reduce((a, b) => (b.length < a.length ? b : a));
  writeFileSync(join(folder, `${name}.br`), smallest);
  console.log(`${String(raw.length).padStart(8)} → ${String(smallest.length).padStart(8)}  ${name}`);
}
