// A stiff shoulder is led: how the arm lies, the muscles in their order, and what
// is not done.
import { useContext } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button, Card } from "../../../parts/controls";
import { WhatNext } from "../next/WhatNext";
import { Cautions, Columns, Said } from "../../../parts/layout";

const Order = styled.ol`
  margin: 0;
  padding-left: 1.4em;
  display: grid;
  gap: 4px;
  li {
    padding-bottom: 4px;
  }
  li:not(:last-child) {
    border-bottom: 1px solid var(--line-soft);
  }
  li::marker {
    color: var(--ink-soft);
  }
  li[data-done="true"] {
    color: var(--ink-soft);
  }
`;

interface Props {
  led: Schemas["Guidance"];
  points: Schemas["Point"][];
  holds: Schemas["Hold"][];
}

export function StiffShoulder({ led, points, holds }: Props) {
  const pressed = (muscle: string) =>
    points.some(
      (p) =>
        p.muscle === muscle &&
        p.side === led.side &&
        holds.some((h) => h.point === p.point && h.status !== "aside"),
    );
  const next = useContext(WhatNext);
  return (
    <Card $gap={2} data-led={led.side}>
      <h2>Stiff shoulder, {led.side}</h2>
      <Said className="quiet" $small>
        {led.why} {led.arm}
      </Said>
      <Order>
        {led.order.map((s) => (
          <li key={s.muscle} data-done={pressed(s.muscle)}>
            <Columns $cols="minmax(0, 1fr) auto" $align="center" $gap={3}>
              <span>
                <b>{s.name}</b>
                {pressed(s.muscle) ? ", pressed. " : ". "}
                {s.how}
              </span>
              {next && !pressed(s.muscle) && (
                <Button onPress={() => next.find({ muscle: s.muscle, side: led.side })}>Find it</Button>
              )}
            </Columns>
          </li>
        ))}
      </Order>
      <Cautions>
        {led.cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </Cautions>
    </Card>
  );
}
