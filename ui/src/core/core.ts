// The one door to the Go core, which is compiled to WebAssembly and loaded when a screen
// needs it. It is the same code that the server runs; nothing here decides anything.
import type { Schemas } from "../api/client";
import type { Questions } from "./questions";

/** What a module puts where it runs: one function, text in and text out. */
export interface Raw {
  ask(name: string, json: string): string;
}

/** What answers questions: the core's worker; in tests the module itself. A refusal is a CoreError. */
export interface Answers {
  ask(name: string, input: unknown): Promise<unknown>;
}

export type Name = keyof Questions & string;
export type Input<N extends Name> = Questions[N]["in"];
export type Answer<N extends Name> = Questions[N]["out"];

/** A refusal by the core; it names the field. */
class CoreError extends Error {
  constructor(
    readonly path: string,
    given: string,
    allowed: string,
  ) {
    super(`${path}: given ${given}; allowed: ${allowed}`);
  }
}

/** The core has answered, with a no. */
export const isRefusal = (e: unknown) => e instanceof CoreError;

/** The question was about a log that has grown since. */
export const isOutdated = (e: unknown) => e instanceof CoreError && e.path === "$.revision";

/** What never changes while the program runs, asked for once. */
export interface Lists {
  muscles: Schemas["AtlasEntry"][];
  questions: Schemas["Question"][];
  movements: Schemas["Measurable"][];
  tests: Schemas["TestEntry"][];
  signs: Schemas["SignSpot"][];
  postureLines: Schemas["PostureLine"][];
  gauges: Schemas["GaugeInfo"][];
  thresholds: Schemas["FlagThreshold"][];
  protocols: Schemas["ProtocolName"][];
  kinds: Schemas["Kind"][];
}

export class Core {
  private constructor(
    private readonly module: Answers,
    readonly lists: Lists,
  ) {}

  /** The lists are asked of the module, or of what was written down of its answers. */
  static async open(module: Answers, written: Answers = module): Promise<Core> {
    const core = new Core(written, {} as Lists);
    const [atlas, questions, movements, tests, signs, gauges, thresholds, protocols, kinds] =
      await Promise.all([
        core.ask("atlas", {}),
        core.ask("questions", {}),
        core.ask("movements", {}),
        core.ask("tests", {}),
        core.ask("signs", {}),
        core.ask("gauges", {}),
        core.ask("thresholds", {}),
        core.ask("protocols", {}),
        core.ask("event-kinds", {}),
      ]);
    return new Core(module, {
      muscles: atlas.muscles,
      questions: questions.questions,
      movements: movements.movements,
      tests: tests.tests,
      signs: signs.spots,
      postureLines: signs.posture,
      gauges: gauges.gauges,
      thresholds: thresholds.thresholds,
      protocols: protocols.protocols,
      kinds: kinds.kinds,
    });
  }

  /** The core's answer; a refusal is a CoreError. */
  async ask<N extends Name>(name: N, input: Input<N>): Promise<Answer<N>> {
    return (await this.module.ask(name, input)) as Answer<N>;
  }
}

/** What an answer says; a refusal is a CoreError. */
export function okOf<T>(answer: string): T {
  const a = JSON.parse(answer) as { ok?: T; error?: { Path: string; Given: string; Allowed: string } };
  if (a.error) throw new CoreError(a.error.Path, a.error.Given, a.error.Allowed);
  return a.ok as T;
}

/** A module's answer; a refusal is a CoreError. */
export const answerOf = <T>(raw: Raw, name: string, input: unknown) =>
  okOf<T>(raw.ask(name, JSON.stringify(input)));
