// The lists that a page begins with are what the core itself answers.
import { expect, it } from "vitest";
import { realCore } from "../testing/core";
import { Core, type Name } from "./core";
import written from "./lists.json";

it("has written down what the core answers, and nothing that is not asked", async () => {
  const real = await realCore();
  for (const [name, answer] of Object.entries(written))
    expect(await real.ask(name as Name, {} as never), name).toEqual(answer);
  const asked: string[] = [];
  const begun = await Core.open(
    { ask: () => Promise.reject(new Error("The core has not begun.")) },
    {
      ask: async (name) => {
        asked.push(name);
        return (written as Record<string, unknown>)[name];
      },
    },
  );
  expect(begun.lists).toEqual(real.lists);
  expect(asked.sort()).toEqual(Object.keys(written).sort());
});

it("asks the core itself for all else", async () => {
  const begun = await Core.open({ ask: async (name) => `the core says ${name}` }, { ask: async () => ({}) });
  expect(await begun.ask("visit-state", {} as never)).toBe("the core says visit-state");
});
