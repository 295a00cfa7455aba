// A sequence in the making: its name, its steps, how long it takes, and what the core says against
// it while it is being changed.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, Problem, type Schemas } from "../../api/client";
import { Button, Card, Choice, ErrorPanel, Search, Text } from "../../parts/controls";
import { Fill, Row, Said } from "../../parts/layout";
import { count } from "../../parts/words";
import { type Draft, moved, type Step, type Technique, usualDose } from "./draft";
import type { Places } from "./places";
import { StepRow } from "./StepRow";

const Steps = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
`;

export const blockNames = { "warm-up": "Warm-up", lengthen: "Lengthening", close: "Closing" } as const;
const blocks = ["warm-up", "lengthen", "close"] as const;
const sides = ["each", "whole", "once"] as const;
const sideNames = {
  each: "each step on both sides",
  whole: "one side, then the other",
  once: "one side only",
};

interface Props {
  id: string;
  draft: Draft;
  techniques: Technique[];
  places: Places;
  /** Only of one that is kept already. */
  onDelete?: () => void;
  onSave: (d: Draft) => Promise<void>;
  onLeave: () => void;
}

export function Editor({ id, draft, techniques, places, onDelete, onSave, onLeave }: Props) {
  const [d, setD] = useState(draft);
  const [error, setError] = useState<Error>();
  const [sure, setSure] = useState(false);
  const set = (own: Partial<Draft>) => setD({ ...d, ...own });
  const laid = useLength(d);
  const wrong = error instanceof Problem ? error.fields : {};
  const save = () => {
    setError(undefined);
    onSave({ ...d, name: d.name.trim() }).catch((e: Error) => setError(e));
  };
  return (
    <Card $gap={3} data-editing={id}>
      <Row $wrap $align="end" $gap={3}>
        <Fill>
          <Text
            label="Name"
            value={d.name}
            maxLength={120}
            error={wrong.name}
            onChange={(name) => set({ name })}
          />
        </Fill>
        <Said className="num" role="status">
          {laid.words}
        </Said>
      </Row>
      <Row $wrap $gap={4}>
        <Choice
          label="Part of the session"
          value={d.block}
          options={blocks}
          describe={(b) => blockNames[b]}
          onChoose={(block) => set({ block })}
        />
        <Choice
          label="Sides"
          value={d.sides ?? "once"}
          options={sides}
          describe={(s) => sideNames[s]}
          onChoose={(s) => set({ sides: s })}
        />
      </Row>
      <StepList
        d={d}
        set={set}
        techniques={techniques}
        places={places}
        wrong={{ ...laid.wrong, ...byStep(wrong) }}
      />
      {error && <ErrorPanel error={error} />}
      <Row>
        <Button $kind="main" isDisabled={d.steps.length === 0 || !d.name.trim()} onPress={save}>
          Save
        </Button>
        <Button onPress={onLeave}>Cancel</Button>
        <Fill />
        {onDelete && (
          <Button $kind="stop" onPress={sure ? onDelete : () => setSure(true)}>
            {sure ? "Yes, delete it" : "Delete this sequence"}
          </Button>
        )}
      </Row>
    </Card>
  );
}

interface ListProps extends Pick<Props, "techniques" | "places"> {
  d: Draft;
  set: (own: Partial<Draft>) => void;
  wrong: Record<number, string>;
}

function StepList({ d, set, techniques, places, wrong }: ListProps) {
  const of = new Map(techniques.map((t) => [t.technique, t]));
  const change = (i: number, s: Step) => set({ steps: d.steps.map((x, k) => (k === i ? s : x)) });
  const move = (from: number, to: number) => set({ steps: moved(d.steps, from, to) });
  return (
    <>
      <Steps aria-label="Steps">
        {d.steps.map((s, i) => {
          const t = of.get(s.technique);
          return (
            t && (
              <StepRow
                // Steps have no identity of their own.
                key={`${i}${s.technique}${s.where}`}
                s={s}
                t={t}
                nth={i}
                last={i === d.steps.length - 1}
                places={places}
                wrong={wrong[i]}
                onChange={(x) => change(i, x)}
                onMove={move}
                onDrop={() => set({ steps: d.steps.filter((_, k) => k !== i) })}
              />
            )
          );
        })}
      </Steps>
      <Search
        label="Add a step"
        none="Choose a technique"
        value={undefined}
        options={techniques.map((t) => t.technique)}
        describe={(id) => of.get(id)?.name ?? id}
        onPick={(id) => {
          const t = id && of.get(id);
          const where = d.steps.at(-1)?.where ?? "posterior-neck";
          if (t) set({ steps: [...d.steps, { technique: t.technique, where, dose: usualDose(t) }] });
        }}
      />
    </>
  );
}

/** Errors by the number of their step, from 0. */
function byStep(fields: Record<string, string>): Record<number, string> {
  const out: Record<number, string> = {};
  for (const [field, text] of Object.entries(fields)) {
    const at = /steps\[(\d+)\]/.exec(field)?.[1];
    if (at) out[Number(at)] = text;
  }
  return out;
}

/** How long it takes with nobody in particular, and what the core refuses. */
function useLength(d: Draft): { words: string; wrong: Record<number, string> } {
  const sequence = { steps: d.steps, ...(d.sides ? { sides: d.sides } : {}) };
  const q = useQuery({
    queryKey: ["sequence-laid", sequence],
    enabled: d.steps.length > 0,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (old: Schemas["LaidOut"] | undefined) => old,
    queryFn: () =>
      must(api.POST("/api/calc/sequence", { body: { sequence } as never })) as Promise<Schemas["LaidOut"]>,
  });
  const fields = q.error instanceof Problem ? q.error.fields : {};
  if (!q.data || d.steps.length === 0) return { words: "No steps yet", wrong: byStep(fields) };
  const { seconds, turns, steps } = q.data;
  return {
    words: `${Math.max(1, Math.round(seconds / 60))} min, ${count(steps.length, "step")} with both sides, ${count(turns, "turn")}`,
    wrong: byStep(fields),
  };
}
