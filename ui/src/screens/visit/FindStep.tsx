// Mark a point, chart it in seconds, correct it later.
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { useFigure, type View } from "../../body/BodySvg";
import { gradeWord } from "../../body/marks";
import { uuidv7 } from "../../core/ids";
import { Button, Card, Choice, Choices, Text } from "../../parts/controls";
import { one, plain, sentence } from "../../parts/words";
import type { Body } from "./useBody";
import type { StepProps } from "./Visit";

export interface Aim {
  view: View;
  x: number;
  y: number;
  under?: Schemas["UnderOut"];
  candidate?: Schemas["Candidate"];
  felt: string[];
}

const List = styled.ul`
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  gap: 6px;
  button {
    width: 100%;
    text-align: left;
    display: flex;
    gap: 10px;
    justify-content: space-between;
  }
  .off {
    color: var(--ink-soft);
    font-weight: 400;
    white-space: nowrap;
  }
`;
const Form = styled.form`
  display: grid;
  gap: 9px;
`;

interface Chart {
  band: "yes" | "no" | "unsure";
  nodule: "none" | "grain" | "pea" | "larger";
  grade: number;
  nprs?: number;
  familiar: "yes" | "partly" | "no" | "unknown";
  twitch: boolean;
  note: string;
}
const fresh: Chart = { band: "yes", nodule: "pea", grade: 2, familiar: "unknown", twitch: false, note: "" };
const numbers = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10];

interface Props extends StepProps {
  body: Body;
  /** The therapist's own finger-width in cm. */
  finger?: number;
}

export function FindStep({ visit, body, finger }: Props) {
  const { aim, setAim, selected, setSelected, height, chosen: suspect } = body;
  const { state, core, write, open } = visit;
  const point = state.points.find((p) => p.point === selected);
  const [c, set] = useState<Chart>(fresh);
  const [felt, setFelt] = useState<string[]>([]);
  const [missing, setMissing] = useState("");
  const { data: figure } = useFigure(aim?.view ?? "back");
  const key = point?.point ?? `${aim?.view}${aim?.x}${aim?.y}`;
  // Only another point or place begins the form anew; a log that grows meanwhile
  // must not take away what is being typed.
  const [shown, setShown] = useState("");
  if (shown !== key) {
    setShown(key);
    set(
      point
        ? {
            band: point.taut_band,
            nodule: point.nodule ?? "none",
            grade: point.grade,
            nprs: point.nprs,
            familiar: point.familiar,
            twitch: point.twitch ?? false,
            note: point.note ?? "",
          }
        : fresh,
    );
    setFelt(point?.referral ?? []);
    setMissing("");
  }

  const cand = aim?.candidate;
  if (!point && !aim) {
    const sought = suspect && core.palpate(suspect.muscle, suspect.side, height, undefined, finger);
    return (
      <>
        {suspect && sought && (
          <Card data-sought={suspect.muscle}>
            <h2>
              {sought.name}, {suspect.side}
            </h2>
            <p className="quiet" style={{ marginTop: 4 }}>
              Usual places of its points; touch one, or the body where the band is.{" "}
              <Link to={`/guide/${suspect.muscle}/${suspect.side}?height=${height}`}>
                Step by step, at the table
              </Link>
            </p>
            <List>
              {sought.sites.map((s) => (
                <li key={s.site}>
                  <Button onPress={() => body.aimAtSite(s, suspect)}>
                    <span>{s.name}</span>
                  </Button>
                </li>
              ))}
            </List>
          </Card>
        )}
        <Card>
          <h2>Points of this visit</h2>
          {state.points.length === 0 && (
            <p className="quiet" style={{ marginTop: 6 }}>
              None yet. Touch the body where the band is. Dashed lenses are points of earlier visits: touch
              one to chart it again.
            </p>
          )}
          <List>
            {state.points.map((p) => (
              <li key={p.point}>
                <Button onPress={() => setSelected(p.point)}>
                  <span>
                    {sentence(plain(p.muscle))}, {p.side}
                  </span>
                  <span className="off">
                    {gradeWord(p.grade)} · {one(p.nprs)} of 10
                  </span>
                </Button>
              </li>
            ))}
          </List>
        </Card>
      </>
    );
  }
  if (aim && !aim.under) {
    return (
      <Card>
        <h2>Aiming</h2>
        <p className="quiet">Arrow keys move, Shift moves faster, Enter marks.</p>
      </Card>
    );
  }
  if (aim && !cand) {
    return (
      <Card>
        <h2>{aim.under?.region ? sentence(plain(aim.under.region)) : "Off the body"}</h2>
        <p className="quiet">
          No muscle of the atlas runs here in this view. Touch another place, or another view.
        </p>
      </Card>
    );
  }
  const muscle = point?.muscle ?? (cand as Schemas["Candidate"]).muscle;
  const side = point?.side ?? (cand as Schemas["Candidate"]).side;
  const guide = core.palpate(muscle, side, height, (point?.site ?? cand?.site) || undefined, finger);
  const usual = [...guide.referral.essential, ...guide.referral.spillover];
  const again = cand ? core.same(open.earlier, muscle, side, cand.place, height) : "";
  const before = again ? open.earlier.find((p) => p.identity === again) : undefined;

  const save = (e: React.FormEvent) => {
    e.preventDefault();
    if (c.nprs === undefined) {
      setMissing("The client's number at test pressure, 0 to 10, is missing.");
      return;
    }
    const fields = {
      taut_band: c.band,
      nodule: c.nodule,
      grade: c.grade,
      nprs: c.nprs,
      referral: felt,
      familiar: c.familiar,
      twitch: c.twitch,
      note: c.note,
    };
    if (point) {
      const { point: id, muscle: m, side: s, site, figure, view, x, y, place, identity } = point;
      write("point-corrected", {
        point: id,
        identity,
        muscle: m,
        side: s,
        ...(site ? { site } : {}),
        figure,
        view,
        x,
        y,
        place,
        ...fields,
      });
      setSelected(undefined);
    } else if (aim && cand) {
      const id = uuidv7();
      write("point-charted", {
        point: id,
        ...(again ? { identity: again } : {}),
        muscle,
        side,
        ...(cand.site ? { site: cand.site } : {}),
        figure: figure?.version,
        view: aim.view,
        x: aim.x,
        y: aim.y,
        place: cand.place,
        ...fields,
      });
      setAim(undefined);
      setSelected(undefined);
    }
  };
  return (
    <Card>
      {aim && (
        <>
          <p className="quiet" style={{ fontSize: 13 }} aria-live="polite">
            {sentence(plain(aim.under?.region ?? ""))}, {side}
          </p>
          {(aim.under?.muscles.length ?? 0) > 1 && (
            <div style={{ margin: "4px 0 8px" }}>
              <Choice
                quiet
                label="Muscle under the finger"
                value={cand?.muscle}
                options={(aim.under?.muscles ?? []).slice(0, 4).map((m) => m.muscle)}
                onChoose={(m) =>
                  setAim({ ...aim, candidate: aim.under?.muscles.find((x) => x.muscle === m) })
                }
                describe={(m) => sentence(plain(m))}
              />
            </div>
          )}
        </>
      )}
      <h2>
        {guide.name}, {side}
      </h2>
      <p className="quiet">
        {before
          ? `Same spot as before: last time ${one(before.nprs)}, after ${one(before.after_nprs)}.`
          : cand?.site
            ? guide.sites[0]?.name
            : "Own site."}
      </p>
      <p className="quiet" style={{ marginBottom: 6, fontSize: 13.5 }}>
        Usually sends pain to {guide.referral.essential.map(plain).join(", ")}: a guide, never proof.
      </p>
      <Form onSubmit={save}>
        <Choice
          label="Number at test pressure (0–10)"
          value={c.nprs}
          options={numbers}
          onChoose={(v) => {
            set({ ...c, nprs: v });
            setMissing("");
          }}
        />
        {missing && (
          <p role="alert" style={{ color: "var(--stop)" }}>
            {missing}
          </p>
        )}
        <Choice
          label={`Tenderness grade: ${gradeWord(c.grade)}`}
          value={c.grade}
          options={[0, 1, 2, 3, 4]}
          onChoose={(v) => set({ ...c, grade: v })}
        />
        <Choice
          label="Is this the pain you came with?"
          value={c.familiar}
          options={["yes", "partly", "no", "unknown"]}
          onChoose={(v) => set({ ...c, familiar: v })}
        />
        <div style={{ display: "flex", gap: 18, flexWrap: "wrap" }}>
          <Choice
            label="Taut band"
            value={c.band}
            options={["yes", "no", "unsure"]}
            onChoose={(v) => set({ ...c, band: v })}
          />
          <Choice
            label="Nodule"
            value={c.nodule}
            options={["none", "grain", "pea", "larger"]}
            onChoose={(v) => set({ ...c, nodule: v })}
          />
          <Choice
            label="Twitch"
            value={c.twitch ? "yes" : "no"}
            options={["yes", "no"]}
            onChoose={(v) => set({ ...c, twitch: v === "yes" })}
          />
        </div>
        <Choices
          label="Where does the client feel it? Ask openly."
          values={felt}
          options={usual}
          describe={plain}
          onChange={(v) => {
            setFelt(v);
            if (aim) setAim({ ...aim, felt: v });
          }}
        />
        <Text label="Note" value={c.note} onChange={(note) => set({ ...c, note })} />
        <div style={{ display: "flex", gap: 8 }}>
          <Button type="submit" $kind="main" style={{ flex: 1 }}>
            {point ? "Save the correction" : "Chart this point"}
          </Button>
          <Button
            onPress={() => {
              setAim(undefined);
              setSelected(undefined);
            }}
          >
            Leave
          </Button>
          {point && !state.holds.some((h) => h.point === point.point) && (
            <Button
              $kind="stop"
              onPress={() => {
                write("point-removed", { point: point.point });
                setSelected(undefined);
              }}
            >
              Remove
            </Button>
          )}
        </div>
      </Form>
      <details style={{ marginTop: 12 }}>
        <summary className="quiet" style={{ cursor: "pointer" }}>
          How to find and confirm it
        </summary>
        <p style={{ marginTop: 6 }}>
          <Link
            to={`/guide/${muscle}/${side}?height=${height}${guide.sites[0] ? `&site=${guide.sites[0].site}` : ""}`}
          >
            Step by step, at the table
          </Link>
        </p>
        <ol style={{ margin: "8px 0", paddingLeft: 20 }}>
          {guide.steps.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
        <p>
          <b>Confirm.</b> {guide.confirm.text}
        </p>
        {guide.near.map((n) => (
          <p key={n.structure}>
            <b>{sentence(plain(n.structure))}</b>, {one(n.distance_cm)} cm ({one(n.finger_widths)}{" "}
            finger-widths). {n.text}
          </p>
        ))}
      </details>
    </Card>
  );
}
