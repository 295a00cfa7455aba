// From findings to a ranked list of suspects, live: every answer re-ranks in
// the same frame. A guide, and worded as one.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Choice, Pick } from "../../parts/controls";
import { Tuned } from "../../parts/Tuned";
import { plain, sentence } from "../../parts/words";
import type { StepProps } from "./Visit";

const List = styled.ol`
  list-style: none;
  margin: 10px 0 0;
  padding: 0;
  display: grid;
  gap: 0;
  > li {
    border-top: 1px solid var(--line-soft);
    padding: 7px 0;
  }
  > li:first-child {
    border-top: 0;
  }
  .head {
    all: unset;
    cursor: pointer;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 190px 46px;
    gap: 12px;
    align-items: center;
    width: 100%;
    box-sizing: border-box;
    border-radius: 8px;
  }
  .head:focus-visible {
    outline: 3px solid var(--focus);
  }
  .bar {
    position: relative;
    height: 12px;
    border-radius: 6px;
    background: var(--line-soft);
  }
  .bar i {
    position: absolute;
    inset: 0 auto 0 0;
    border-radius: 6px;
    background: var(--usual);
  }
  .bar[data-ready="true"] i {
    background: var(--accent);
  }
  .bar b {
    position: absolute;
    left: 80%;
    top: -4px;
    bottom: -4px;
    width: 2px;
    background: var(--ink);
  }
  table {
    border-collapse: collapse;
    margin: 4px 0 2px;
    width: 100%;
  }
  td {
    padding: 2px 10px 2px 0;
    vertical-align: top;
  }
  td:first-child {
    width: 58px;
    text-align: right;
    font-variant-numeric: tabular-nums;
    color: var(--ink-soft);
  }
  .cautions {
    margin: 2px 0 8px;
    padding-left: 18px;
    color: var(--warn);
    font-size: 13.5px;
  }
  .blocked {
    color: var(--stop);
    font-size: 13px;
  }
`;

interface Props extends StepProps {
  ranking: Schemas["Ranking"];
  chosen?: { muscle: string; side: string };
  setChosen: (c: { muscle: string; side: string } | undefined) => void;
  height: number;
  /** Goes on to the body with this muscle laid on it. */
  onFind: (c: { muscle: string; side: string }) => void;
}

const none: Record<string, Schemas["Ratio"]> = {};
const useWeights = () =>
  useQuery({ queryKey: ["weights"], staleTime: 60_000, queryFn: () => must(api.GET("/api/evidence")) });

/** What each kind of finding weighs, with its source; the practice may set its
 * own within bounds, and go back. */
function Weights({ visit }: StepProps) {
  const list = useMemo(() => visit.core.evidence(), [visit.core]);
  const queries = useQueryClient();
  const own = useWeights().data?.weights ?? none;
  const keep = async (call: Promise<Schemas["Weights"]>) => queries.setQueryData(["weights"], await call);
  const rows = list.map((e) => {
    const r = own[e.id] ?? e.ratio;
    const path = { path: { evidence: e.id } };
    const set = (over: Partial<Schemas["Ratio"]>) =>
      keep(must(api.PUT("/api/evidence/{evidence}", { params: path, body: { ...r, ...over } })));
    return {
      id: e.id,
      name: e.name,
      source: e.source,
      fields: [
        {
          label: "when present",
          value: r.plus,
          min: 1,
          max: 50,
          step: 0.1,
          onSet: (plus: number) => set({ plus }),
        },
        {
          label: "when absent",
          value: r.minus,
          min: 0.05,
          max: 1,
          step: 0.05,
          onSet: (minus: number) => set({ minus }),
        },
      ],
      ...(own[e.id]
        ? { onReset: () => keep(must(api.DELETE("/api/evidence/{evidence}", { params: path }))) }
        : {}),
    };
  });
  return (
    <Tuned
      name="weights"
      summary="What each finding weighs"
      note="Likelihood ratios: how many times likelier when present, and when looked for and absent. Bounds 1–50 and 0.05–1."
      rows={rows}
    />
  );
}

export function useRanking({ visit }: StepProps): Schemas["Ranking"] {
  const { core, open, state } = visit;
  const earlier = useMemo(
    () =>
      open.earlier.map((p) => ({
        muscle: p.muscle,
        side: p.side,
        days_ago: Math.max(0, (Date.parse(open.visit.starts_at) - p.charted_ms) / 86_400_000),
      })),
    [open],
  );
  const weights = useWeights().data?.weights ?? none;
  return useMemo(
    () => core.suspects(open.context, state, earlier, weights),
    [core, open.context, state, earlier, weights],
  );
}

/** How many suspects are shown at first: more is not read. */
const few = 7;

/** A suspect's reasons with their weights, and what to be careful of there. */
function Reasons({
  s,
  guide,
  onFind,
}: {
  s: Schemas["Suspect"];
  guide: Schemas["Guide"];
  onFind: () => void;
}) {
  const near = guide.near
    .filter((n) => n.distance_cm < 5)
    .map((n) => `${sentence(plain(n.structure))}: ${n.text}`);
  const cautions = [...guide.cautions, ...near].slice(0, 4);
  return (
    <>
      {s.blocked_because && <p className="blocked">{s.blocked_because}</p>}
      <table>
        <tbody>
          {s.why.map((w) => (
            <tr key={w.finding + w.text}>
              <td>
                {w.effect > 0 ? "+" : "−"}
                {Math.abs(w.effect).toFixed(1)}
              </td>
              <td>{w.text}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {cautions.length > 0 && (
        <ul className="cautions" aria-label="Cautions here">
          {cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      )}
      <Button onPress={onFind} style={{ margin: "4px 0 6px" }}>
        Find it on the body
      </Button>
    </>
  );
}

export function SuspectStep({ visit, ranking, chosen, setChosen, height, onFind }: Props) {
  const { core, state, write } = visit;
  const [order, setOrder] = useState<"likeliest first" | "by region">("likeliest first");
  const [allShown, setAllShown] = useState(false);
  const [open, setOpen] = useState<string>();
  const [test, setTest] = useState<string>();
  const all = useMemo(() => core.tests(), [core]);
  const result = (t: string, s: string) => state.tests.find((x) => x.test === t && x.side === s)?.result;
  const done = (t: string, s: string, r: string) => write("test-done", { test: t, side: s, result: r });
  const ready = ranking.suspects.filter((s) => s.ready).length;
  const list = allShown ? ranking.suspects : ranking.suspects.slice(0, few);
  const regions = [...new Set(list.map((s) => s.region))];
  const groups =
    order === "by region"
      ? regions.map((r) => [r, list.filter((s) => s.region === r)] as const)
      : [["", list] as const];
  const chosenTest = all.find((t) => t.id === test);
  return (
    <>
      <Card>
        <h2>{ready ? `${ready} ready for hands` : "None above the line yet: test first"}</h2>
        <p className="quiet" style={{ marginTop: 2 }}>
          A guide from what was found, never proof. The line is 80 %.
        </p>
        {ranking.notes.map((n) => (
          <p key={n} className="caution" style={{ marginTop: 8 }}>
            {n}
          </p>
        ))}
        {groups.map(([region, list]) => (
          <div key={region}>
            {region && (
              <h3 className="quiet" style={{ marginTop: 12 }}>
                {sentence(plain(region))}
              </h3>
            )}
            <List aria-label={region ? `Suspects, ${plain(region)}` : "Suspects, likeliest first"}>
              {list.map((s) => {
                const key = s.muscle + s.side;
                const shown = open === key;
                return (
                  <li key={key} data-suspect={`${s.muscle}:${s.side}`}>
                    <button
                      type="button"
                      className="head"
                      aria-expanded={shown}
                      onClick={() => {
                        setOpen(shown ? undefined : key);
                        setChosen({ muscle: s.muscle, side: s.side });
                      }}
                    >
                      <span
                        style={{
                          fontWeight: chosen?.muscle === s.muscle && chosen.side === s.side ? 650 : 500,
                        }}
                      >
                        {s.name}, {s.side}
                        {s.blocked && <span className="blocked"> · blocked</span>}
                      </span>
                      <span className="bar" data-ready={s.ready} aria-hidden>
                        <i style={{ width: `${s.confidence * 100}%` }} />
                        <b />
                      </span>
                      <span className="num" style={{ textAlign: "right" }}>
                        {Math.round(s.confidence * 100)} %
                      </span>
                    </button>
                    {shown && (
                      <Reasons
                        s={s}
                        guide={core.palpate(s.muscle, s.side, height)}
                        onFind={() => onFind({ muscle: s.muscle, side: s.side })}
                      />
                    )}
                  </li>
                );
              })}
            </List>
          </div>
        ))}
        <div style={{ display: "flex", gap: 8, marginTop: 10, flexWrap: "wrap" }}>
          <Choice
            quiet
            label="Order"
            value={order}
            options={["likeliest first", "by region"] as const}
            onChoose={setOrder}
          />
          {ranking.suspects.length > few && (
            <Button onPress={() => setAllShown(!allShown)}>
              {allShown ? "The likeliest only" : `All ${ranking.suspects.length}`}
            </Button>
          )}
        </div>
      </Card>
      <Card>
        <h2>Next best test</h2>
        {ranking.next_tests.length === 0 && (
          <p className="quiet" style={{ marginTop: 4 }}>
            Paint the pain and measure a movement first; then the tests worth doing are named here.
          </p>
        )}
        {ranking.next_tests.map((n) => (
          <div
            key={n.test + n.side}
            data-next={`${n.test}:${n.side}`}
            style={{
              display: "grid",
              gridTemplateColumns: "minmax(0,1fr) auto",
              gap: "2px 12px",
              alignItems: "center",
              padding: "8px 0",
              borderTop: "1px solid var(--line-soft)",
            }}
          >
            <span>
              <b>{n.text}.</b> <span className="quiet num">{n.gain_bits.toFixed(2)} bits</span>
              <br />
              <span className="quiet" style={{ fontSize: 13.5 }}>
                {n.how}
              </span>
            </span>
            <Choice
              quiet
              label={`${n.name}, ${n.side}`}
              value={result(n.test, n.side)}
              options={["positive", "negative"]}
              onChoose={(r) => done(n.test, n.side, r)}
            />
          </div>
        ))}
        <div style={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr)", gap: 8, marginTop: 10 }}>
          <Pick
            label="Any other test"
            none="choose a test"
            value={test}
            options={all.map((t) => t.id as string)}
            describe={(id) => all.find((t) => t.id === id)?.name ?? id}
            onPick={setTest}
          />
          {chosenTest && (
            <>
              <p className="quiet">{chosenTest.how}</p>
              {["left", "right"].map((s) => (
                <Choice
                  key={s}
                  label={sentence(s)}
                  value={result(chosenTest.id, s)}
                  options={["positive", "negative", "unclear"]}
                  onChoose={(r) => done(chosenTest.id, s, r)}
                />
              ))}
            </>
          )}
        </div>
        {state.tests.length > 0 && (
          <ul style={{ margin: "10px 0 0", paddingLeft: 18 }} aria-label="Tests done">
            {state.tests.map((t) => (
              <li key={t.test + t.side}>
                {all.find((x) => x.id === t.test)?.name}, {t.side}: {t.result}
              </li>
            ))}
          </ul>
        )}
      </Card>
      <Card style={{ display: "grid", gap: 10 }}>
        <Weights visit={visit} />
        {chosen && <Button onPress={() => setChosen(undefined)}>Take the muscle off the body</Button>}
      </Card>
    </>
  );
}
