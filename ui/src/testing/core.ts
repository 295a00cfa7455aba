// The real core for tests: what the screens ask is answered by the Go code, as
// in the browser.
import wasm from "../core/core.wasm?url&inline";
import "../core/wasm_exec.js";
import { answerOf, Core, type Raw } from "../core/core";

let loading: Promise<Core> | undefined;

export function realCore(): Promise<Core> {
  loading ??= start();
  return loading;
}

async function start(): Promise<Core> {
  const go = new Go();
  const bytes = Uint8Array.from(atob(wasm.slice(wasm.indexOf(",") + 1)), (c) => c.charCodeAt(0));
  const { instance } = await WebAssembly.instantiate(bytes, go.importObject);
  void go.run(instance);
  if (!globalThis.mokrenCore) throw new Error("The core has not begun.");
  const raw: Raw = globalThis.mokrenCore;
  return Core.open({ ask: async (name, input) => answerOf(raw, name, input) });
}
