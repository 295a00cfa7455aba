// A note to read: its parts, each line a sentence or two.
import { Fragment } from "react";
import { styled } from "styled-components";
import { sentence } from "../../../parts/words";
import { type NoteText, noteParts } from "./parts";

const Body = styled.div`
  display: grid;
  gap: var(--s3);
  h3 {
    margin-bottom: var(--s1);
  }
  p {
    overflow-wrap: anywhere;
  }
  p + p {
    margin-top: 2px;
  }
`;

export function NoteBody({ text }: { text: NoteText }) {
  return (
    <Body>
      {noteParts.map((p) => (
        <section key={p}>
          <h3>{sentence(p)}</h3>
          {text[p].split("\n").map((l, i) => (
            <Fragment key={i}>{l.trim() && <p>{l}</p>}</Fragment>
          ))}
        </section>
      ))}
    </Body>
  );
}
