// The screening: asked once, aged by the core, answered by a touch each. What
// it comes to is shown with its reasons and rules over every hold.
import { useMemo, useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button, Card, Choice, Choices, Pick, Text } from "../../parts/controls";
import { plain, sentence } from "../../parts/words";
import { ConsentCard } from "./Consent";
import { Waiting } from "./OwnDevice";
import type { StepProps } from "./Visit";

const Row = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 12px;
  align-items: center;
  padding: 7px 0;
  border-top: 1px solid var(--line-soft);
  &:first-child {
    border-top: 0;
  }
  .where {
    grid-column: 1 / -1;
    display: grid;
    gap: 8px;
    padding: 2px 0 6px;
  }
  &[data-missing="true"] > span {
    font-weight: 560;
  }
  small {
    color: var(--ink-soft);
  }
`;
const Head = styled.div`
  display: flex;
  gap: 10px;
  align-items: center;
  h2 {
    flex: 1;
  }
  button[aria-expanded] {
    all: unset;
    cursor: pointer;
  }
`;

const groups = [
  { outcome: "emergency", name: "Stops everything", none: "None of these" },
  { outcome: "refer-first", name: "Seen by a clinician first", none: "None of these" },
  { outcome: "avoid-here", name: "Not here", none: "None of these" },
  { outcome: "adapt", name: "Gentler", none: "None of these" },
] as const;

export const outcomeName: Record<string, string> = {
  emergency: "No treatment: urgent medical care",
  "refer-first": "No treatment until a clinician has cleared it",
  "avoid-here": "Not in these places",
  adapt: "Gentler today",
  clear: "Nothing found",
};

interface Props extends StepProps {
  /** The question whose regions a touch on the body adds to. */
  placing?: string;
  setPlacing: (question: string | undefined) => void;
}

export function ScreenStep({ visit, placing, setPlacing }: Props) {
  const { state, core, write, open } = visit;
  const questions = useMemo(() => core.questions(), [core]);
  const own = new Map(state.answers.map((a) => [a.question, a]));
  const carried = new Map(open.context.carried.map((a) => [a.question, a]));
  const missing = new Set(state.screening.missing);
  // What is to ask today stands first, decided when the step opens.
  const [order] = useState(
    () =>
      new Map(
        groups.map((g) => {
          const of = questions.filter((q) => q.outcome === g.outcome);
          return [
            g.outcome as string,
            [
              ...of.filter((q) => state.screening.missing.includes(q.id)),
              ...of.filter((q) => !state.screening.missing.includes(q.id)),
            ],
          ];
        }),
      ),
  );
  const [shut, setShut] = useState<Record<string, boolean>>({});
  const answer = (list: Schemas["ScreenedAnswer"][]) => write("screening-answered", { answers: list });
  // What is to be asked (again) shows no answer yet, so that the same one can be given.
  const value = (q: string) => (missing.has(q) ? undefined : (own.get(q) ?? carried.get(q))?.answer);
  return (
    <>
      <Waiting visit={visit} only="answers" />
      <ConsentCard visit={visit} />
      <Card>
        <h2>
          {missing.size
            ? `${missing.size} question${missing.size > 1 ? "s" : ""} to ask`
            : outcomeName[state.screening.outcome]}
        </h2>
        <p className="quiet" style={{ marginTop: 4 }}>
          {missing.size
            ? "Ask, then touch. What is not known counts as yes. A hold cannot begin before the first two groups are asked."
            : "Asked and answered for today."}
        </p>
      </Card>
      {groups.map((g) => {
        const all = questions.filter((q) => q.outcome === g.outcome);
        const open_ = all.filter((q) => missing.has(q.id));
        // Within a group the order of asking holds while it is being asked.
        const list = order.get(g.outcome) ?? all;
        const hidden = shut[g.outcome] ?? open_.length === 0;
        return (
          <Card key={g.outcome} data-group={g.outcome} style={{ padding: "14px 18px" }}>
            <Head>
              <h2>
                <button
                  type="button"
                  aria-expanded={!hidden}
                  onClick={() => setShut({ ...shut, [g.outcome]: !hidden })}
                >
                  {g.name}{" "}
                  <span
                    className="quiet"
                    style={{ fontFamily: "var(--text)", fontSize: 14, fontWeight: 500 }}
                  >
                    {open_.length ? `${open_.length} to ask` : "asked"} · {hidden ? "show" : "hide"}
                  </span>
                </button>
              </h2>
              {open_.length > 0 && (
                <Button onPress={() => answer(open_.map((q) => ({ question: q.id, answer: "no" as const })))}>
                  {g.none}
                </Button>
              )}
            </Head>
            {!hidden && (
              <ul style={{ listStyle: "none", margin: "8px 0 0", padding: 0 }}>
                {list.map((q) => {
                  const v = value(q.id);
                  const a = own.get(q.id);
                  // What an earlier visit said of the place stays when more is added.
                  const base = a ?? carried.get(q.id);
                  const set = (over: Partial<Schemas["ScreenedAnswer"]>) =>
                    answer([
                      {
                        question: q.id,
                        answer: base?.answer === "unknown" ? "unknown" : "yes",
                        ...(base?.side ? { side: base.side } : {}),
                        ...(base?.regions ? { regions: base.regions } : {}),
                        ...(a?.since ? { since: a.since } : {}),
                        ...(a?.note ? { note: a.note } : {}),
                        ...over,
                      },
                    ]);
                  return (
                    <Row key={q.id} data-missing={missing.has(q.id)} data-question={q.id}>
                      <span>
                        {q.ask}
                        {!own.has(q.id) && carried.has(q.id) && !missing.has(q.id) ? (
                          <small> As before.</small>
                        ) : (
                          ""
                        )}
                      </span>
                      <Choice
                        quiet
                        label={q.ask}
                        value={v}
                        options={["yes", "no", "unknown"]}
                        describe={(x) => (x === "unknown" ? "?" : x)}
                        onChoose={(x) => {
                          answer([{ question: q.id, answer: x as "yes" | "no" | "unknown" }]);
                          if (x === "yes" && q.where === "regions") setPlacing(q.id);
                        }}
                      />
                      {v !== undefined && v !== "no" && (
                        <div className="where">
                          <p style={{ color: "var(--warn)" }}>{q.text}</p>
                          {q.where !== "nowhere" && (
                            <Choice
                              label="Which side"
                              value={base?.side || "midline"}
                              options={["left", "right", "midline"]}
                              describe={(s) => (s === "midline" ? "both" : s)}
                              onChoose={(side) => set({ side: side as Schemas["ScreenedAnswer"]["side"] })}
                            />
                          )}
                          {q.where === "regions" && (
                            <>
                              {(base?.regions?.length ?? 0) > 0 && (
                                <Choices
                                  label="Where; touch one to take it off"
                                  values={base?.regions ?? []}
                                  options={base?.regions ?? []}
                                  describe={plain}
                                  onChange={(regions) => set({ regions })}
                                />
                              )}
                              <Button
                                $kind={placing === q.id ? "main" : "plain"}
                                aria-pressed={placing === q.id}
                                onPress={() => setPlacing(placing === q.id ? undefined : q.id)}
                              >
                                {placing === q.id ? "Touch the body where it is" : "Show where on the body"}
                              </Button>
                            </>
                          )}
                          <Detail key={q.id} since={a?.since} note={a?.note} onKeep={set} />
                        </div>
                      )}
                    </Row>
                  );
                })}
              </ul>
            )}
          </Card>
        );
      })}
    </>
  );
}

/** Since when, and what else was said; kept when the field is left. */
function Detail({
  since = "",
  note = "",
  onKeep,
}: {
  since?: string;
  note?: string;
  onKeep: (over: Partial<Schemas["ScreenedAnswer"]>) => void;
}) {
  const [draft, setDraft] = useState({ since, note });
  const leave = (k: "since" | "note") => () => draft[k] !== { since, note }[k] && onKeep({ [k]: draft[k] });
  return (
    <div style={{ display: "grid", gridTemplateColumns: "1fr 2fr", gap: 8 }}>
      <Text
        label="Since when"
        value={draft.since}
        maxLength={100}
        onChange={(v) => setDraft({ ...draft, since: v })}
        onBlur={leave("since")}
      />
      <Text
        label="Note"
        value={draft.note}
        maxLength={2000}
        onChange={(v) => setDraft({ ...draft, note: v })}
        onBlur={leave("note")}
      />
    </div>
  );
}

/** What the screening comes to, above every step: the outcome with its
 * reasons, and the way to record that a clinician has cleared it. */
export function Banner({ visit }: StepProps) {
  const { state, write } = visit;
  const s = state.screening;
  const [clearing, setClearing] = useState<string>();
  const [by, setBy] = useState("");
  const [on, setOn] = useState("");
  const [note, setNote] = useState("");
  const [error, setError] = useState("");
  if (s.rules.length === 0) return null;
  const grave = s.outcome === "emergency" || s.outcome === "refer-first" || s.no_treatment;
  const clearable = s.rules.filter((r) => ["refer-first", "emergency", "avoid-here"].includes(r.outcome));
  const save = (e: React.FormEvent) => {
    e.preventDefault();
    if (!by.trim() || !on.trim()) {
      setError("Who cleared it, and when?");
      return;
    }
    write("screening-cleared", { question: clearing, by, on, note });
    setClearing(undefined);
  };
  return (
    <div
      className="caution"
      role={grave ? "alert" : "note"}
      data-outcome={s.outcome}
      style={grave ? { background: "var(--stop-soft)", color: "var(--stop)" } : undefined}
    >
      <b>{grave && s.outcome === "avoid-here" ? "Say where first" : outcomeName[s.outcome]}.</b>
      <ul style={{ margin: "4px 0 0", paddingLeft: 18 }}>
        {s.rules.map((r) => (
          <li key={r.id + (r.side ?? "")}>
            {sentence(plain(r.id))}
            {r.side && r.side !== "midline" ? `, ${r.side}` : ""}. {r.text}
          </li>
        ))}
      </ul>
      {clearable.length > 0 &&
        (clearing === undefined ? (
          <Button style={{ marginTop: 8 }} onPress={() => setClearing(clearable[0]?.id)}>
            A clinician has cleared it
          </Button>
        ) : (
          <form onSubmit={save} style={{ display: "grid", gap: 8, marginTop: 8 }}>
            <Pick
              label="What was cleared"
              none=""
              value={clearing as string}
              options={clearable.map((r) => r.id as string)}
              describe={(id) => sentence(plain(id))}
              onPick={(q) => setClearing(q ?? clearing)}
            />
            <div style={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 8 }}>
              <Text
                label="Cleared by"
                value={by}
                onChange={(v) => {
                  setBy(v);
                  setError("");
                }}
                error={error}
              />
              <Text
                label="When"
                value={on}
                onChange={(v) => {
                  setOn(v);
                  setError("");
                }}
              />
            </div>
            <Text label="Note" value={note} onChange={setNote} />
            <div style={{ display: "flex", gap: 8 }}>
              <Button type="submit" $kind="main">
                Record it
              </Button>
              <Button onPress={() => setClearing(undefined)}>Leave</Button>
            </div>
          </form>
        ))}
    </div>
  );
}
