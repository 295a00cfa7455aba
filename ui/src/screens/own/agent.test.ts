import { describe, expect, it } from "vitest";
import { agentWords } from "./agent";

describe("agentWords", () => {
  it.each([
    [
      "Mozilla/5.0 (Linux; Android 14; SM-X200) AppleWebKit/537.36 Chrome/130 Safari/537.36",
      "Android tablet",
    ],
    [
      "Mozilla/5.0 (Linux; Android 14; Pixel) AppleWebKit/537.36 Chrome/130 Mobile Safari/537.36",
      "Android telephone",
    ],
    ["Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36", "Linux computer"],
    ["Go-http-client/1.1", "Go-http-client/1.1"],
    ["", "A device that does not say what it is"],
  ])("%s", (agent, words) => {
    expect(agentWords(agent)).toBe(words);
  });
});
