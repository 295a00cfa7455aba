// Loading the bench, only where it is opened: no other page needs it.
import { BenchModule } from "./benchModule";
import benchURL from "./bench.wasm?url";
import type { Raw } from "./core";
import { once, runModule } from "./loadCore";

export const loadBench = once(async () => {
  await runModule(benchURL, "mokrenBenchReady");
  return new BenchModule(globalThis.mokrenBench as Raw);
});
