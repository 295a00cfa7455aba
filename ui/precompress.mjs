// Writes a brotli twin beside every script, style, list and WebAssembly file of a folder, so that
// the server never compresses. A file's name tells its contents, so a twin is made once.
//
//   node ui/precompress.mjs api/web/dist/assets .mokren/brotli
import { copyFileSync, existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from "node:fs";
import { extname, join } from "node:path";
import { brotliCompressSync, constants as c } from "node:zlib";

const params = { [c.BROTLI_PARAM_QUALITY]: 11, [c.BROTLI_PARAM_LGWIN]: 24 };

const [folder, kept] = process.argv.slice(2);
mkdirSync(kept, { recursive: true });
for (const name of readdirSync(folder)) {
  if (![".js", ".css", ".wasm", ".json"].includes(extname(name))) continue;
  const raw = readFileSync(join(folder, name));
  const twin = join(kept, `${name}.${raw.length}.br`);
  if (!existsSync(twin)) writeFileSync(twin, brotliCompressSync(raw, { params }));
  copyFileSync(twin, join(folder, `${name}.br`));
  console.log(
    `${String(raw.length).padStart(8)} → ${String(readFileSync(twin).length).padStart(8)}  ${name}`,
  );
}
