// The interview's fields, the same for the therapist and for the client's own
// device; last time's answers stand beside them.
import { styled } from "styled-components";
import type { Schemas } from "../api/client";
import { Button, Choice, Choices, Text } from "../parts/controls";
import { one, plain } from "../parts/words";

export type Story = Schemas["Interviewed"];
const numbers = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
export const loads = [
  "long-sitting",
  "overhead-work",
  "running",
  "jumping",
  "lifting",
  "one-sided-carrying",
  "keyboard",
  "fine-hand-work",
  "standing",
  "driving",
];
const texts = [
  ["since", "Since when"],
  ["pattern", "Over the day"],
  ["eases", "What eases it"],
  ["worsens", "What worsens it"],
  ["medication", "Medication"],
  ["earlier_treatment", "Earlier treatment"],
] as const;
const scores = [
  ["now", "Number now"],
  ["worst", "At its worst"],
  ["best", "At its best"],
] as const;

const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(210px, 1fr));
  gap: 10px;
  align-items: end;
`;

interface Props {
  story: Story;
  onStory: (s: Story) => void;
  loads: string[];
  onLoads: (l: string[]) => void;
  /** How the complaint is asked for. */
  ask: string;
  last?: Story;
  /** What a change of an activity's score comes to. */
  compare?: (before: number, after: number) => string;
}

/** Why a story cannot be kept, or "". */
export const storyTrouble = (s: Story) =>
  s.best !== undefined && s.worst !== undefined && s.best > s.worst
    ? "The best number is above the worst."
    : "";

/** As it is kept: without activities that were given no name. */
export const tidy = (s: Story): Story => ({
  ...s,
  activities: (s.activities ?? []).filter((a) => a.name.trim()),
});

/** A story told on the client's own device over the one that was noted: what was
 * left empty wipes nothing out, and the three numbers stay together. */
export function mergeStory(noted: Story, told: Story): Story {
  const { now, worst, best, ...rest } = noted;
  const numbers = scores.some(([k]) => told[k] !== undefined) ? {} : { now, worst, best };
  const story = tidy({ ...rest, ...numbers, ...told });
  return { ...story, activities: story.activities?.length ? story.activities : (noted.activities ?? []) };
}

/** What is being typed, when the kept story has changed underneath: every field
 * that was not typed into follows the kept one. */
export function rebase(base: Story, typed: Story, kept: Story): Story {
  const out: Record<string, unknown> = { ...kept };
  for (const k of new Set([...Object.keys(base), ...Object.keys(typed)]) as Set<keyof Story>) {
    if (JSON.stringify(typed[k]) !== JSON.stringify(base[k])) out[k] = typed[k];
  }
  return out as Story;
}

export function StoryFields({ story: v, onStory, loads: own, onLoads, ask, last, compare }: Props) {
  const set = (over: Partial<Story>) => onStory({ ...v, ...over });
  const acts = v.activities ?? [];
  const put = (i: number, over: Partial<Schemas["Activity"]>) =>
    set({ activities: acts.map((x, k) => (k === i ? { ...x, ...over } : x)) });
  return (
    <>
      <Text label={ask} long value={v.complaint ?? ""} onChange={(complaint) => set({ complaint })} />
      {scores.map(([k, label]) => (
        <Choice
          scale
          key={k}
          label={`${label}, 0 none to 10 worst${last?.[k] === undefined ? "" : `; last time ${one(last[k])}`}`}
          value={v[k]}
          options={numbers}
          onChoose={(n) => set({ [k]: n })}
        />
      ))}
      {storyTrouble(v) && (
        <p role="alert" style={{ color: "var(--stop)" }}>
          {storyTrouble(v)}
        </p>
      )}
      <Pair>
        {texts.map(([k, label]) => (
          <Text
            key={k}
            label={last?.[k] ? `${label}; last time: ${last[k]}` : label}
            value={v[k] ?? ""}
            onChange={(x) => set({ [k]: x })}
          />
        ))}
      </Pair>
      <Choices label="Work and sport" values={own} options={loads} describe={plain} onChange={onLoads} />
      {acts.map((a, i) => {
        const before = last?.activities?.find((x) => x.name === a.name);
        return (
          <div key={i} data-activity style={{ display: "grid", gap: 4 }}>
            <Text
              label={`Activity wanted back ${i + 1}`}
              value={a.name}
              onChange={(name) => put(i, { name })}
            />
            <Choice
              scale
              label={`0 cannot, 10 as before${before ? `; last time ${before.score}${compare ? `, ${compare(before.score, a.score)}` : ""}` : ""}`}
              value={a.score}
              options={numbers}
              onChoose={(score) => put(i, { score })}
            />
          </div>
        );
      })}
      {acts.length < 3 && (
        <Button
          style={{ justifySelf: "start" }}
          onPress={() => set({ activities: [...acts, { name: "", score: 5 }] })}
        >
          Add an activity wanted back
        </Button>
      )}
    </>
  );
}
