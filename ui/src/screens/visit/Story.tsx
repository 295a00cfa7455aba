// The interview at the desk: typed here or told on the client's own device,
// kept when the therapist says so.
import { useState } from "react";
import { Button, Card } from "../../parts/controls";
import { type Story as Told, StoryFields, storyTrouble, tidy } from "../StoryFields";
import type { StepProps } from "./Visit";

export function Story({ visit }: StepProps) {
  const { state, core, open, write } = visit;
  const last = open.earlier_interview;
  const [draft, setDraft] = useState<Told>();
  // Last time's activities are asked again, so that they can be compared.
  const v: Told = draft ?? state.interview ?? { complaint: open.client.complaint ?? "", activities: last?.activities?.map((a) => ({ name: a.name, score: a.score })) ?? [] };
  return (
    <Card style={{ display: "grid", gap: 10 }} data-story>
      <h2>The story</h2>
      <StoryFields story={v} onStory={setDraft} ask="Complaint, in the client's words" last={last} loads={state.loads} onLoads={(l) => write("loads-declared", { loads: l })}
        compare={(a, b) => core.change("psfs-item", a, b).text} />
      <Button $kind="main" style={{ justifySelf: "start" }} isDisabled={!draft || !!storyTrouble(v)} onPress={() => { write("interview-noted", tidy(v)); setDraft(undefined); }}>
        {draft ? "Keep the story" : state.interview ? "Kept" : "Nothing new to keep"}
      </Button>
    </Card>
  );
}
