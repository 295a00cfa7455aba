// Loading the core: the program itself, and the small script that starts it.
import { Core, type Raw } from "./core";
import wasmURL from "./core.wasm?url";
import execURL from "./wasm_exec.js?url";

declare global {
  var mokrenCore: Raw | undefined;
  var mokrenCoreReady: (() => void) | undefined;
  var Go: new () => { importObject: WebAssembly.Imports; run(i: WebAssembly.Instance): Promise<void> };
}

let loading: Promise<Core> | undefined;

/** Loads the core once; a failed load is tried again at the next call. */
export function loadCore(): Promise<Core> {
  loading ??= start().catch((e) => {
    loading = undefined;
    throw e;
  });
  return loading;
}

async function start(): Promise<Core> {
  // Both at once: the program is the larger by far.
  const program = fetch(wasmURL);
  if (!globalThis.Go) {
    await new Promise<void>((done, fail) => {
      const s = document.createElement("script");
      s.src = execURL;
      s.onload = () => done();
      s.onerror = () => fail(new Error("The core could not be loaded."));
      document.head.append(s);
    });
  }
  const go = new Go();
  const ready = new Promise<void>((done) => {
    globalThis.mokrenCoreReady = done;
  });
  const { instance } = await WebAssembly.instantiateStreaming(program, go.importObject);
  void go.run(instance);
  await ready;
  return Core.open(globalThis.mokrenCore as Raw);
}
