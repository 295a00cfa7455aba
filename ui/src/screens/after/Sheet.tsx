// The aftercare sheet: large, plain, and the same on screen, on paper and on the
// client's own device. It names nobody.
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { PosePicture } from "../../body/PosePicture";

const Paper = styled.article`
  max-width: 720px;
  margin: 0 auto;
  padding: 26px 24px 40px;
  background: var(--card);
  color: var(--ink);
  font-size: 18px;
  line-height: 1.45;
  display: grid;
  gap: 18px;
  h1 {
    font-family: var(--serif);
    font-size: 30px;
  }
  h2 {
    font-family: var(--serif);
    font-size: 21px;
    margin-bottom: 4px;
  }
  ul {
    margin: 0;
    padding-left: 1.1em;
    display: grid;
    gap: 6px;
  }
  ul.drawn {
    list-style: none;
    padding: 0;
  }
  .drawn li {
    display: flex;
    gap: 14px;
    align-items: center;
  }
  .drawn svg {
    flex: none;
    width: 132px;
    height: 132px;
  }
  .call a {
    color: inherit;
    white-space: nowrap;
  }
  .call {
    border-left: 5px solid var(--warn);
    padding-left: 14px;
  }
  .quiet {
    color: var(--ink-soft);
  }
  li b {
    font-weight: 620;
  }
  footer {
    border-top: 1px solid var(--line-soft);
    padding-top: 12px;
    p {
      margin: 0;
      white-space: pre-line;
    }
  }
  @media print {
    padding: 0;
    max-width: none;
    font-size: 12.5pt;
    background: none;
    section {
      break-inside: avoid;
    }
  }
`;

interface Props {
  practice: Schemas["Letterhead"];
  emergency: string;
  /** As it is read: 26 November 2026. */
  day: string;
  sheet: Schemas["Aftercare"];
}

const sidesInWords = (sides: string[]) => (sides.length > 1 ? "both sides" : (sides[0] ?? ""));

export function Sheet({ practice, emergency, day, sheet }: Props) {
  return (
    <Paper data-aftercare>
      <div>
        <h1>After your treatment</h1>
        <p className="quiet">
          {practice.name} · {day}
        </p>
      </div>
      {sheet.worked.length > 0 && (
        <section>
          <h2>What was worked</h2>
          <p>{sheet.worked.join(" · ")}</p>
        </section>
      )}
      <section>
        <h2>Usual</h2>
        <ul>
          {sheet.usual.map((u) => (
            <li key={u}>{u}</li>
          ))}
        </ul>
      </section>
      {sheet.stretches.length > 0 && (
        <section>
          <h2>At home</h2>
          {sheet.stretches.some((s) => s.drawing) && (
            <p className="quiet">The drawings show which way a muscle is lengthened, as you stand.</p>
          )}
          <ul className="drawn">
            {sheet.stretches.map((s) => (
              <li key={s.name}>
                {s.drawing && <PosePicture d={s.drawing} label={`Which way ${s.name} is lengthened`} />}
                <span>
                  <b>
                    {s.name}, {sidesInWords(s.sides)}, and compare the other side.
                  </b>{" "}
                  {s.text} Hold {s.hold_s} s, {s.repeats} times, without pain.
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className="call">
        <h2>
          Not usual: call us
          {practice.telephone && (
            <>
              , <a href={`tel:${practice.telephone.replace(/\s/g, "")}`}>{practice.telephone}</a>
            </>
          )}
        </h2>
        <ul>
          {sheet.not_usual.map((u) => (
            <li key={u}>{u}</li>
          ))}
        </ul>
        <p>
          <b>Urgent medical care: {emergency}.</b>
        </p>
      </section>
      <section>
        <h2>Next time</h2>
        <p>
          In {sheet.next.from_days} to {sheet.next.to_days} days.{" "}
          <span className="quiet">{sheet.next.why}</span>
        </p>
      </section>
      <footer className="quiet" data-letterhead>
        <b>{practice.logo_text || practice.name}</b>
        {[practice.address, practice.telephone, practice.opening_hours].filter(Boolean).map((x) => (
          <p key={x}>{x}</p>
        ))}
        <p>This sheet does not replace a doctor's advice.</p>
      </footer>
    </Paper>
  );
}
