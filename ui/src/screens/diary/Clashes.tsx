// What stands against an appointment.
import type { Schemas } from "../../api/client";
import { Bullets, Notice } from "../../parts/layout";
import { weekDate } from "../progress/time";

export function Clashes({ list }: { list: Schemas["Clash"][] }) {
  if (list.length === 0) return null;
  return (
    <Notice role="alert" data-clashes>
      <b>Not booked yet:</b>
      <Bullets>
        {list.map((c) => (
          <li key={c.kind + c.at}>
            {weekDate(c.at.slice(0, 10))}: {c.text}
          </li>
        ))}
      </Bullets>
    </Notice>
  );
}
