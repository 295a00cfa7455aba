// Writes a brotli twin beside every script, style and WebAssembly file of a folder, so that
// the server never compresses.
//
//   node ui/precompress.mjs api/web/dist/assets
import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { extname, join } from "node:path";
import { brotliCompressSync, constants as c } from "node:zlib";

const params = { [c.BROTLI_PARAM_QUALITY]: 11, [c.BROTLI_PARAM_LGWIN]: 24 };

const folder = process.argv[2];
for (const name of readdirSync(folder)) {
  if (![".js", ".css", ".wasm"].includes(extname(name))) continue;
  const raw = readFileSync(join(folder, name));
  const smallest = brotliCompressSync(raw, { params });
  writeFileSync(join(folder, `${name}.br`), smallest);
  console.log(`${String(raw.length).padStart(8)} → ${String(smallest.length).padStart(8)}  ${name}`);
}
