// What has not been asked, measured or tested yet, the most telling first; one
// touch goes there.
import { useContext } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../parts/controls";
import { WhatNext } from "../next/WhatNext";

const List = styled.ol`
  list-style: none;
  margin: var(--s2) 0 0;
  padding: 0;
  display: grid;
  gap: var(--s2);
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: var(--s3);
    align-items: center;
    padding: var(--s2) 0;
    border-top: 1px solid var(--line-soft);
  }
`;

export function Telling({ missing }: { missing: Schemas["Missing"][] }) {
  const next = useContext(WhatNext);
  return (
    <>
      <h3>Most useful next</h3>
      <List aria-label="Most useful next">
        {missing.map((m) => (
          <li key={m.evidence}>
            <span>
              <b>{m.name}</b>
              <br />
              <span className="quiet">{m.text}</span>
            </span>
            {m.step !== "suspect" && <Button onPress={() => next?.go(m.step)}>Go there</Button>}
          </li>
        ))}
      </List>
    </>
  );
}
