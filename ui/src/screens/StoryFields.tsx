// The interview's fields, the same for the therapist and for the client's own
// device; last time's answers stand beside them.
import { styled } from "styled-components";
import type { Schemas } from "../api/client";
import { Button, Choice, Choices, Text } from "../parts/controls";
import { one, plain } from "../parts/words";
import { Row, Said, Stack } from "../parts/layout";
import { loads as loadIDs, scores, type Story, storyError } from "./story";

const numbers = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
const texts = [
  ["since", "Since when"],
  ["pattern", "Pattern over the day"],
  ["eases", "What eases it"],
  ["worsens", "What worsens it"],
  ["medication", "Medication"],
  ["earlier_treatment", "Earlier treatment"],
] as const;
const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(210px, 1fr));
  gap: 10px;
  align-items: end;
`;

type Load = Schemas["LoadID"];

interface Props {
  story: Story;
  onStory: (s: Story) => void;
  loads: Load[];
  onLoads: (l: Load[]) => void;
  /** How the complaint is asked for. */
  ask: string;
  last?: Story;
  /** What a change of an activity's score comes to. */
  compare?: (before: number, after: number) => string;
}

export function StoryFields({ story: v, onStory, loads: own, onLoads, ask, last, compare }: Props) {
  const set = (over: Partial<Story>) => onStory({ ...v, ...over });
  return (
    <>
      <Text label={ask} long value={v.complaint ?? ""} onChange={(complaint) => set({ complaint })} />
      {scores.map(([k, label]) => (
        <Choice
          scale
          key={k}
          label={[`${label}, 0 none to 10 worst`, last?.[k] !== undefined && `last time ${one(last[k])}`]
            .filter(Boolean)
            .join("; ")}
          value={v[k]}
          options={numbers}
          onChoose={(n) => set({ [k]: n })}
        />
      ))}
      {storyError(v) && (
        <Said role="alert" $tone="stop">
          {storyError(v)}
        </Said>
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
      <Choices label="Work and sport" values={own} options={loadIDs} describe={plain} onChange={onLoads} />
      <Activities
        list={v.activities ?? []}
        onList={(activities) => set({ activities })}
        last={last?.activities ?? []}
        compare={compare}
      />
    </>
  );
}

type Activity = Schemas["Activity"];
const most = 3;

interface ActivityProps {
  list: Activity[];
  onList: (l: Activity[]) => void;
  last: Activity[];
  compare?: (before: number, after: number) => string;
}

/** Up to three activities that the client wants back, each with its score. */
function Activities({ list, onList, last, compare }: ActivityProps) {
  const put = (i: number, over: Partial<Activity>) =>
    onList(list.map((x, k) => (k === i ? { ...x, ...over } : x)));
  const lastTime = (a: Activity) => {
    const before = last.find((x) => x.name === a.name);
    if (!before) return "";
    return `; last time ${before.score}${compare ? `, ${compare(before.score, a.score)}` : ""}`;
  };
  return (
    <>
      {list.map((a, i) => (
        <Stack key={i} data-activity $gap={1}>
          <Text
            label={`Activity they want to return to ${i + 1}`}
            value={a.name}
            onChange={(name) => put(i, { name })}
          />
          <Choice
            scale
            label={`0 unable, 10 as before the problem${lastTime(a)}`}
            value={a.score}
            options={numbers}
            onChoose={(score) => put(i, { score })}
          />
        </Stack>
      ))}
      {list.length < most && (
        <Row>
          <Button onPress={() => onList([...list, { name: "", score: 5 }])}>
            Add an activity wanted back
          </Button>
        </Row>
      )}
    </>
  );
}
