// Starting the core, in a worker of its own; and running a module on the page, as the bench does.
import { type Answers, Core, type Raw } from "./core";
import { WorkerLink } from "./workerLink";
import listsURL from "./lists.json?url";
import execURL from "./wasm_exec.js?url";

declare global {
  var mokrenCore: Raw | undefined;
  var mokrenCoreReady: (() => void) | undefined;
  /** The core's door on the page, for the console and for benchmarks. */
  var mokrenLink: WorkerLink | undefined;
  var mokrenBench: Raw | undefined;
  var mokrenBenchReady: (() => void) | undefined;
  var Go: new () => { importObject: WebAssembly.Imports; run(i: WebAssembly.Instance): Promise<void> };
}

/** Loads a module once; a failed load is tried again at the next call. */
export function once<T>(start: () => Promise<T>): () => Promise<T> {
  let loading: Promise<T> | undefined;
  return () => {
    loading ??= start().catch((e) => {
      loading = undefined;
      throw e;
    });
    return loading;
  };
}

/** The core's answers that never change, written down when it was built: the page begins with them
 * while the core starts. */
async function writtenLists(): Promise<Answers> {
  const r = await fetch(listsURL);
  if (!r.ok) throw new Error("The core could not be loaded.");
  const lists = (await r.json()) as Record<string, unknown>;
  return { ask: async (name) => lists[name] };
}

export const loadCore = once(async () => {
  globalThis.mokrenLink ??= new WorkerLink(
    () => new Worker(new URL("./coreWorker.ts", import.meta.url), { type: "module", name: "core" }),
  );
  return Core.open(globalThis.mokrenLink, await writtenLists());
});

let executor: Promise<void> | undefined;

function script(): Promise<void> {
  executor ??= new Promise<void>((done, fail) => {
    const s = document.createElement("script");
    s.src = execURL;
    s.onload = () => done();
    s.onerror = () => {
      executor = undefined;
      fail(new Error("The core could not be loaded."));
    };
    document.head.append(s);
  });
  return executor;
}

/** Fetches a program and starts it; it has put its door on the page when this is done. */
export async function runModule(url: string, saysReady: "mokrenBenchReady") {
  // Both at once: the program is the larger by far.
  const program = fetch(url);
  if (!globalThis.Go) await script();
  const go = new Go();
  const ready = new Promise<void>((done) => {
    globalThis[saysReady] = done;
  });
  const { instance } = await WebAssembly.instantiateStreaming(program, go.importObject);
  void go.run(instance);
  await ready;
}
