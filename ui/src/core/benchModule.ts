// The door to the practice bench, a module of its own beside the core. The exercises are the same
// code that the server runs; nothing here decides anything.
import type { BenchQuestions } from "./benchQuestions";
import { answerOf, type Raw } from "./core";

export class BenchModule {
  constructor(private readonly raw: Raw) {}

  ask<N extends keyof BenchQuestions & string>(
    name: N,
    input: BenchQuestions[N]["in"],
  ): BenchQuestions[N]["out"] {
    return answerOf(this.raw, name, input);
  }
}
