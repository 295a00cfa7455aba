// The worker in which the core runs, so that no computation keeps the page from drawing or from
// taking a touch. It is told {n, name, json}, one at a time, and says {n, answer}; before the first
// it says {ready}. What it keeps is lost with it: the page tells it again (workerLink.ts).
import type { Raw } from "./core";
import wasmURL from "./core.wasm?url";
import "./wasm_exec.js";

/** What the page tells the worker. */
export interface Question {
  n: number;
  name: string;
  json: string;
}

/** What the worker says: that it is there, why it is not, or the answer to a question. */
export type Said = { ready: true } | { failed: string } | { n: number; answer: string };

const say = (said: Said) => postMessage(said);

const module = (async () => {
  const go = new Go();
  const ready = new Promise<void>((done) => {
    globalThis.mokrenCoreReady = done;
  });
  const { instance } = await WebAssembly.instantiateStreaming(fetch(wasmURL), go.importObject);
  void go.run(instance);
  await ready;
  say({ ready: true });
  return globalThis.mokrenCore as Raw;
})();

module.catch((e: unknown) => say({ failed: String(e) }));

addEventListener("message", async ({ data }: MessageEvent<Question>) => {
  const { n, name, json } = data;
  const core = await module.catch(() => undefined);
  if (core) say({ n, answer: core.ask(name, json) });
});
