// What a browser says it is, in two words: the system, and touch or not.
const systems: [RegExp, string][] = [
  [/iPad/, "iPad"],
  [/iPhone/, "iPhone"],
  [/Android.*Mobile/, "Android telephone"],
  [/Android/, "Android tablet"],
  [/Windows/, "Windows computer"],
  [/Mac OS X|Macintosh/, "Mac"],
  [/Linux/, "Linux computer"],
];

export const agentWords = (agent: string) =>
  systems.find(([mark]) => mark.test(agent))?.[1] ??
  (agent.slice(0, 40) || "A device that does not say what it is");
