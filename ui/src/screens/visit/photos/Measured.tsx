// The angles and offsets of a photograph, beside those of a second one.
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Card, Disclosed } from "../../../parts/controls";
import { day, one, plain, sentence } from "../../../parts/words";
import { lengthWords, useUnitPreferences, type UnitPreferences } from "../../../parts/unitPreferences";
import { flat } from "./marks";
import type { Photo } from "./take";

const Facts = styled.dl`
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: var(--s1) 14px;
  margin: 0;
  dt {
    color: var(--ink-soft);
  }
  dd {
    margin: 0;
    text-align: right;
  }
`;

interface Props {
  photo: Photo;
  second?: Photo;
  zone: string;
}

export function Measured({ photo, second, zone }: Props) {
  const w = useUnitPreferences();
  const fact = (p: Photo) => (r: string) => angle(photo, p.measured?.angles[r]);
  const rows = namesOf(photo.measured?.angles, second?.measured?.angles);
  const offsets = namesOf(photo.measured?.offsets, second?.measured?.offsets);
  return (
    <Card data-angles>
      <h2>Measured</h2>
      <p className="quiet">
        Camera tilt {one(photo.measured?.roll_deg).replace("-", "−")}°, corrected below.
      </p>
      {rows.length === 0 ? (
        <p className="quiet">
          {flat(photo)
            ? "Mark both acromions or both iliac crests."
            : "Drop tragus and C7, or ASIS and PSIS."}
        </p>
      ) : (
        <Facts>
          <dt />
          <dd>
            <b>{day(photo.starts_at, zone)}</b>
          </dd>
          <dd>{second ? day(second.starts_at, zone) : ""}</dd>
          <Rows names={rows} of={fact(photo)} beside={second && fact(second)} />
        </Facts>
      )}
      {offsets.length > 0 && (
        <Disclosed
          data-offsets
          summary={`From the plumb line${photo.measured?.unit === "fraction" ? ", in % of its length" : ""}`}
        >
          <Facts>
            <Rows
              names={offsets}
              of={(l) => offset(photo, photo.measured, l, w)}
              beside={second && ((l) => offset(photo, second.measured, l, w))}
            />
          </Facts>
        </Disclosed>
      )}
    </Card>
  );
}

type Say = (name: string) => string;

function Rows({ names, of, beside }: { names: string[]; of: Say; beside?: Say }) {
  return names.map((n) => [
    <dt key={n}>{sentence(plain(n))}</dt>,
    <dd key={`${n}a`}>{of(n)}</dd>,
    <dd key={`${n}b`} className="quiet">
      {beside ? beside(n) : ""}
    </dd>,
  ]);
}

const namesOf = (a: object = {}, b: object = {}) => [...new Set([...Object.keys(a), ...Object.keys(b)])];

function angle(p: Photo, v: number | undefined) {
  if (v === undefined) return "–";
  if (!flat(p)) return `${one(v)}°`;
  const high = Math.abs(v) < 0.05 ? "" : v > 0 ? " left high" : " right high";
  return `${one(Math.abs(v))}°${high}`;
}

function offset(p: Photo, m: Schemas["PhotoAngles"] | undefined, landmark: string, w: UnitPreferences) {
  const v = m?.offsets[landmark];
  if (v === undefined) return "–";
  const cm = m?.unit === "cm";
  const n = cm ? v : v * 100;
  if (Math.abs(n) < 0.05) return "0";
  const [plus, minus] = flat(p) ? ["left", "right"] : ["forward", "back"];
  return `${cm ? lengthWords(Math.abs(n), w) : `${one(Math.abs(n))}%`} ${n > 0 ? plus : minus}`;
}
