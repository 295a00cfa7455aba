// The interview: the complaint in the client's words, three numbers, what
// eases and worsens, and the activities wanted back; last time's beside it.
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { Button, Card, Choice, Text } from "../../parts/controls";
import { one } from "../../parts/words";
import type { StepProps } from "./Visit";

type Story = Schemas["Interviewed"];
const numbers = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];
const texts = [["since", "Since when"], ["pattern", "Over the day"], ["eases", "What eases it"], ["worsens", "What worsens it"], ["medication", "Medication"]] as const;

export function Story({ visit }: StepProps) {
  const { state, core, open, write } = visit;
  const last = open.earlier_interview;
  const kept = state.interview;
  const [draft, setDraft] = useState<Story>();
  const [error, setError] = useState("");
  // Last time's activities are asked again, so that they can be compared.
  const v: Story = draft ?? kept ?? { complaint: open.client.complaint ?? "", activities: last?.activities?.map((a) => ({ name: a.name, score: a.score })) ?? [] };
  const set = (over: Partial<Story>) => { setDraft({ ...v, ...over }); setError(""); };
  const save = () => {
    if (v.best !== undefined && v.worst !== undefined && v.best > v.worst) {
      setError("The best number is above the worst.");
      return;
    }
    const activities = (v.activities ?? []).filter((a) => a.name.trim());
    write("interview-noted", { ...v, activities });
    setDraft(undefined);
  };
  const acts = v.activities ?? [];
  return (
    <Card style={{ display: "grid", gap: 10 }}>
      <h2>The story</h2>
      <Text label="Complaint, in the client's words" long value={v.complaint ?? ""} onChange={(complaint) => set({ complaint })} />
      {(["now", "worst", "best"] as const).map((k) => (
        <Choice key={k} label={`${k === "now" ? "Number now" : k === "worst" ? "At its worst" : "At its best"}${last?.[k] === undefined ? "" : `, last time ${one(last[k])}`}`} value={v[k]} options={numbers} onChoose={(n) => set({ [k]: n })} />
      ))}
      {error && <p role="alert" style={{ color: "var(--stop)" }}>{error}</p>}
      <details>
        <summary className="quiet" style={{ cursor: "pointer" }}>Since when, pattern, eases, worsens, medication</summary>
        <div style={{ display: "grid", gap: 8, marginTop: 8 }}>
          {texts.map(([k, label]) => <Text key={k} label={last?.[k] ? `${label}; last time: ${last[k]}` : label} value={v[k] ?? ""} onChange={(x) => set({ [k]: x })} />)}
        </div>
      </details>
      {acts.map((a, i) => {
        const before = last?.activities?.find((x) => x.name === a.name);
        const change = before && core.change("psfs-item", before.score, a.score);
        return (
          <div key={i} data-activity style={{ display: "grid", gap: 4 }}>
            <Text label={`Activity wanted back ${i + 1}`} value={a.name} onChange={(name) => set({ activities: acts.map((x, k) => (k === i ? { ...x, name } : x)) })} />
            <Choice label={`0 cannot, 10 as before${before ? `; last time ${before.score}${change ? `, ${change.text}` : ""}` : ""}`} value={a.score} options={numbers} onChoose={(score) => set({ activities: acts.map((x, k) => (k === i ? { ...x, score } : x)) })} />
          </div>
        );
      })}
      <div style={{ display: "flex", gap: 8 }}>
        {acts.length < 3 && <Button onPress={() => set({ activities: [...acts, { name: "", score: 5 }] })}>Add an activity</Button>}
        <Button $kind="main" isDisabled={!draft} onPress={save}>{draft ? "Keep the story" : kept ? "Kept" : "Nothing new to keep"}</Button>
      </div>
    </Card>
  );
}
