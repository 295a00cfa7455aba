// What the atlas knows about a muscle, beside the body; with a second muscle
// the two stand side by side.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import type { View } from "../../body/BodySvg";
import type { Core } from "../../core/core";
import { uuidv7 } from "../../core/ids";
import { Button, Card, Choice, Num, Pick, Text, Trouble } from "../../parts/controls";
import { movementName, one, plain, sentence } from "../../parts/words";

const Sheet = styled(Card)`
  display: grid;
  gap: 12px;
  h3 {
    margin-top: 4px;
  }
  tr:first-child > * {
    border-top: 0;
  }
  ol,
  ul {
    margin: 4px 0 0;
    padding-left: 20px;
  }
  li {
    margin: 3px 0;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th {
    text-align: left;
    font-weight: 560;
    color: var(--ink-soft);
    padding: 5px 8px 5px 0;
    vertical-align: top;
    width: 82px;
    font-size: 13px;
  }
  td {
    padding: 5px 8px 5px 0;
    vertical-align: top;
    border-top: 1px solid var(--line-soft);
  }
  th {
    border-top: 1px solid var(--line-soft);
  }
  .link {
    background: none;
    border: 0;
    padding: 0;
    color: var(--accent);
    text-decoration: underline;
    cursor: pointer;
  }
`;

export const motion = (m: { movement: string; toward?: string; deg?: number; text?: string }) =>
  `${movementName(m.movement).toLowerCase()}${m.toward ? (m.toward === "own" ? " toward it" : " away from it") : ""}${m.deg === undefined ? "" : ` ${m.deg}°`}${m.text ? `, ${m.text}` : ""}`;

interface Props {
  core: Core;
  guide: Schemas["Guide"];
  second?: Schemas["Guide"];
  side: string;
  own: Schemas["OwnAtlas"];
  sites: Schemas["OwnSite"][];
  views: View[];
  all: Schemas["AtlasEntry"][];
  onSide: (s: string) => void;
  onOther: (m: string | undefined) => void;
  onChoose: (m: string) => void;
}

export function Facts({ core, guide: g, second, side, own, sites, all, onSide, onOther, onChoose }: Props) {
  const name = (id: string) => all.find((m) => m.id === id)?.name ?? plain(id);
  const both = second ? [g, second] : [g];
  const tell = second && g.mistaken_for.find((m) => m.muscle === second.muscle)?.tell;
  const rows: [string, (x: Schemas["Guide"]) => string][] = [
    ["Sends to", (x) => x.referral.essential.map(plain).join(", ") || "no pattern: pressing technique only"],
    ["At times", (x) => x.referral.spillover.map(plain).join(", ") || "–"],
    ["Does", (x) => x.actions.map((a) => motion(a)).join("; ") || "–"],
    ["Tension", (x) => x.tension.map(motion).join("; ")],
    ["Slack", (x) => x.slack.map(motion).join("; ")],
    ["Lies", (x) => x.positions.map(plain).join(", ")],
    ["Contact", (x) => x.contacts.map(plain).join(", ")],
    ["Drape", (x) => x.draping],
    ["Ease first", (x) => x.ease_first.map(name).join(", ") || "nothing"],
    ["Protocol", (x) => `${plain(x.usual_protocol.protocol)}. ${x.usual_protocol.why}`],
    ["Nerve", (x) => x.innervation],
  ];
  return (
    <>
      <Sheet>
        <div style={{ display: "flex", gap: 10, alignItems: "start" }}>
          <div style={{ flex: 1 }}>
            <h2>{g.name}</h2>
            <p className="quiet" style={{ fontStyle: "italic" }}>
              {g.latin} · layer {g.layer} of 4
            </p>
          </div>
          <Choice label="Side" quiet value={side} options={["left", "right"]} onChoose={onSide} />
        </div>
        <div style={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 8, alignItems: "end" }}>
          <Pick
            label="Beside it"
            none="no second muscle"
            value={second?.muscle}
            options={all.filter((m) => m.id !== g.muscle).map((m) => m.id)}
            describe={name}
            onPick={onOther}
          />
          <Link to={`/guide/${g.muscle}/${side}`} style={{ textDecoration: "none" }}>
            <Button $kind="main" style={{ width: "100%" }}>
              Find it, at the table
            </Button>
          </Link>
        </div>
        {second && (
          <p>
            <b>{g.name}</b>: full dots. <b style={{ color: "var(--other)" }}>{second.name}</b>: rings.
            {tell ? ` ${tell}` : ""}
          </p>
        )}
        <table>
          <tbody>
            {second && (
              <tr>
                <td />
                <td>
                  <b>{g.name}</b>
                </td>
                <td style={{ color: "var(--other)" }}>
                  <b>{second.name}</b>
                </td>
              </tr>
            )}
            {rows.map(([label, f]) => (
              <tr key={label}>
                <th scope="row">{label}</th>
                {both.map((x) => (
                  <td key={x.muscle}>{sentence(f(x))}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <p className="quiet" style={{ fontSize: 13 }}>
          Patterns differ from person to person: a guide, never proof.
        </p>
      </Sheet>
      {!second && (
        <Sheet>
          <h3 style={{ marginTop: 0 }}>Find it</h3>
          <ol>
            {g.steps.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ol>
          <p>
            <b>Confirm.</b> {g.confirm.text}
          </p>
          {g.near.length > 0 && <h3>Keep off</h3>}
          {g.near.length > 0 && (
            <ul>
              {g.near.map((n) => (
                <li key={n.structure}>
                  <b>{n.name}</b>, {one(n.distance_cm)} cm, {one(n.finger_widths)} fingers: {n.text}
                </li>
              ))}
            </ul>
          )}
          <h3>Mistaken for</h3>
          <ul>
            {g.mistaken_for.map((n) => (
              <li key={n.muscle}>
                <button type="button" className="link" onClick={() => onChoose(n.muscle)}>
                  {name(n.muscle)}
                </button>
                : {n.tell}
              </li>
            ))}
          </ul>
          <h3>Cautions</h3>
          <ul>
            {g.cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          <p>
            <b>At home.</b> {g.home_stretch.text} {g.home_stretch.repeats} × {g.home_stretch.hold_s} s.
          </p>
          <p className="quiet" style={{ fontSize: 12.5 }}>
            {g.sources.join(" · ")}
          </p>
        </Sheet>
      )}
      <Own key={g.muscle} core={core} guide={g} side={side} own={own} sites={sites} />
    </>
  );
}

/** The practice's own note and sites; what is shipped stays as it is. */
function Own({
  guide: g,
  own,
  sites,
}: {
  core: Core;
  guide: Schemas["Guide"];
  side: string;
  own: Schemas["OwnAtlas"];
  sites: Schemas["OwnSite"][];
}) {
  const queries = useQueryClient();
  const note = own.notes.find((n) => n.muscle === g.muscle);
  const [text, setText] = useState<string>();
  const [site, setSite] = useState<{ name: string; along: number; across: number }>();
  const [missing, setMissing] = useState("");
  const [gone, setGone] = useState<Schemas["OwnSite"]>();
  const [asking, setAsking] = useState(false);
  const [error, setError] = useState<Error>();
  const run = async (call: Promise<Schemas["OwnAtlas"]>, then: () => void) => {
    setError(undefined);
    try {
      queries.setQueryData(["own-atlas"], await call);
      then();
    } catch (e) {
      setError(e as Error);
    }
  };
  const put = (s: Schemas["OwnSite"]) =>
    must(
      api.PUT("/api/atlas/{muscle}/sites/{id}", {
        params: { path: { muscle: g.muscle, id: s.id } },
        body: s,
      }),
    );
  return (
    <Sheet>
      <h3 style={{ marginTop: 0 }}>Of this practice</h3>
      {error && <Trouble error={error} />}
      <Text
        label={note ? `Note, last by ${note.by}` : "Note"}
        long
        value={text ?? note?.text ?? ""}
        onChange={setText}
      />
      {text !== undefined && text !== (note?.text ?? "") && (
        <Button
          $kind="main"
          onPress={() =>
            run(
              must(
                api.PUT("/api/atlas/{muscle}/note", {
                  params: { path: { muscle: g.muscle } },
                  body: { text, revision: note?.revision ?? 0 } as Schemas["OwnNote"],
                }),
              ),
              () => setText(undefined),
            )
          }
        >
          Keep the note
        </Button>
      )}
      {sites.length > 0 && (
        <ul style={{ listStyle: "none", padding: 0 }}>
          {sites.map((s) => (
            <li key={s.id} style={{ display: "flex", gap: 8, alignItems: "center" }}>
              <span style={{ flex: 1 }}>
                {s.name}{" "}
                <span className="quiet">
                  {one(s.place.along_pct)} % along, {one(s.place.across_mm)} mm across
                </span>
              </span>
              <Button
                onPress={() =>
                  run(
                    must(
                      api.DELETE("/api/atlas/{muscle}/sites/{id}", {
                        params: { path: { muscle: g.muscle, id: s.id } },
                      }),
                    ),
                    () => setGone(s),
                  )
                }
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
      {gone && (
        <p role="status">
          “{gone.name}” removed.{" "}
          <button type="button" className="link" onClick={() => run(put(gone), () => setGone(undefined))}>
            Bring it back
          </button>
        </p>
      )}
      {site ? (
        <form
          style={{ display: "grid", gap: 8 }}
          onSubmit={(e) => {
            e.preventDefault();
            if (!site.name.trim()) {
              setMissing("The site needs a name.");
              return;
            }
            void run(
              put({
                id: uuidv7(),
                muscle: g.muscle,
                name: site.name,
                place: { fibre: 0, along_pct: site.along, across_mm: site.across },
              }),
              () => setSite(undefined),
            );
          }}
        >
          <Text
            label="Name of the site"
            value={site.name}
            onChange={(name) => {
              setSite({ ...site, name });
              setMissing("");
            }}
            error={missing}
          />
          <div style={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 8 }}>
            <Num
              label="Along the fibre"
              unit="%"
              value={site.along}
              min={0}
              max={100}
              onCommit={(v) => setSite({ ...site, along: v ?? 50 })}
            />
            <Num
              label="Across, outward"
              unit="mm"
              value={site.across}
              min={-150}
              max={150}
              onCommit={(v) => setSite({ ...site, across: v ?? 0 })}
            />
          </div>
          <div style={{ display: "flex", gap: 8 }}>
            <Button type="submit" $kind="main">
              Keep the site
            </Button>
            <Button onPress={() => setSite(undefined)}>Leave</Button>
          </div>
        </form>
      ) : (
        <div style={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
          <Button onPress={() => setSite({ name: "", along: 50, across: 0 })}>Add an own site</Button>
          {(note || sites.length > 0) && !asking && (
            <Button onPress={() => setAsking(true)}>Restore what was shipped</Button>
          )}
        </div>
      )}
      {asking && (
        <p role="alert">
          This takes the practice's note and {sites.length} own site{sites.length === 1 ? "" : "s"} off this
          muscle.{" "}
          <Button
            $kind="stop"
            onPress={() =>
              run(must(api.DELETE("/api/atlas/{muscle}", { params: { path: { muscle: g.muscle } } })), () => {
                setAsking(false);
                setText(undefined);
              })
            }
          >
            Restore
          </Button>{" "}
          <Button onPress={() => setAsking(false)}>Keep ours</Button>
        </p>
      )}
    </Sheet>
  );
}
