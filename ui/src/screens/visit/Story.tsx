// The interview at the desk: typed here or told on the client's own device,
// kept when the therapist says so.
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { useAskAll } from "../../core/useAsk";
import { useWhole } from "../../core/useWhole";
import { Button, Card } from "../../parts/controls";
import { Row } from "../../parts/layout";
import { rebase, storyError, type Story as Told, tidy } from "../story";
import { StoryFields } from "../StoryFields";
import type { StepProps } from "./StepProps";

/** Going to another step, or putting the tablet away, loses nothing typed. */
function useKeptOnLeaving(keep: () => void) {
  const latest = useRef(keep);
  latest.current = keep;
  useEffect(() => {
    const hidden = () => document.visibilityState === "hidden" && latest.current();
    document.addEventListener("visibilitychange", hidden);
    return () => {
      document.removeEventListener("visibilitychange", hidden);
      latest.current();
    };
  }, []);
}

type Activities = NonNullable<Told["activities"]>;

/** The questions what has become of each activity's score. */
const changesOf = (before: Activities, after: Activities) =>
  Object.fromEntries(
    after.flatMap((a) => {
      const old = before.find((x) => x.name === a.name);
      if (!old) return [];
      return [[`${old.score} ${a.score}`, { measure: "psfs-item", before: old.score, after: a.score }]];
    }),
  );

export function Story({ visit }: StepProps) {
  const { state, core, open, write } = visit;
  const whole = useWhole<Schemas["State"]["loads"]>(visit);
  const last = open.earlier_interview;
  const [draft, setDraft] = useState<{ base: Told; typed: Told }>();
  // Last time's activities are asked again, so that they can be compared.
  const kept: Told = state.interview ?? {
    complaint: open.client.complaint ?? "",
    activities: last?.activities?.map((a) => ({ name: a.name, score: a.score })) ?? [],
  };
  const v = draft ? rebase(draft.base, draft.typed, kept) : kept;
  const changes = useAskAll(core, "change", changesOf(last?.activities ?? [], v.activities ?? []));
  const keep = () => {
    if (!draft || storyError(v)) return;
    write("interview-noted", tidy(v));
    setDraft(undefined);
  };
  useKeptOnLeaving(keep);
  return (
    <Card $gap={3} data-story>
      <h2>History</h2>
      <StoryFields
        story={v}
        onStory={(typed) => setDraft({ base: kept, typed })}
        ask="Complaint, in the client's words"
        last={last}
        loads={whole.of("loads", state.loads)}
        onLoads={(l) => whole.wrote("loads", l, write("loads-declared", { loads: l }))}
        compare={(a, b) => changes?.[`${a} ${b}`]?.text ?? ""}
      />
      <Row>
        <Button $kind="main" isDisabled={!draft || !!storyError(v)} onPress={keep}>
          {draft ? "Save history" : state.interview ? "Kept" : "No changes"}
        </Button>
      </Row>
    </Card>
  );
}
