// Aftercare at the close of a visit: what the sheet says, on paper or on the
// client's own device, and when to come again.
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { useAskVisit } from "../../core/useAsk";
import { Button, Card, ErrorPanel } from "../../parts/controls";
import { FileLink } from "../../parts/FileLink";
import { Bullets, Row, Said } from "../../parts/layout";
import { may } from "../../rights";
import { BookNext } from "./BookNext";
import type { StepProps } from "./StepProps";

const Code = styled.b`
  letter-spacing: 0.1em;
  font-size: 20px;
`;

export function Aftercare({ visit, me }: StepProps & { me: Schemas["Me"] }) {
  const { state, open, write } = visit;
  const sheet = useAskVisit(visit, "visit-aftercare", {});
  const [link, setLink] = useState<Schemas["NewLink"]>();
  const [error, setError] = useState<Error>();
  const id = open.visit.id;
  const ask = async () => {
    setError(undefined);
    try {
      setLink(await must(api.POST("/api/visits/{id}/after", { params: { path: { id } } })));
    } catch (e) {
      setError(e as Error);
    }
  };
  if (!sheet) return null;
  const { from_days, to_days, why } = sheet.next;
  const inDays = `In ${from_days} to ${to_days} days.`;
  return (
    <Card $gap={3} data-after>
      <h2>Aftercare</h2>
      <Bullets>
        {sheet.stretches.map((s) => (
          <li key={s.name}>
            {s.name}, {s.sides.join(" and ")}: {s.text} {s.repeats} × {s.hold_s} s
          </li>
        ))}
        {sheet.usual.map((u) => (
          <li key={u}>{u}</li>
        ))}
      </Bullets>
      {sheet.left_out && (
        <Said $tone="warn">
          Not on the sheet, by the client's answers:
          <Bullets>
            {sheet.left_out.map((l) => (
              <li key={l}>{l}</li>
            ))}
          </Bullets>
        </Said>
      )}
      <p>
        <b>Next visit: {inDays.toLowerCase()}</b> {why}
      </p>
      {may(me, "book") && <BookNext visit={visit} next={sheet.next} me={me} />}
      {error && <ErrorPanel error={error} />}
      <Row $wrap>
        <Link className="stands" to={`/visits/${id}/aftercare`}>
          Print
        </Link>
        <FileLink href={`/api/visits/${id}/print/aftercare`}>PDF</FileLink>
        <Button onPress={() => void ask()}>{link ? "Another code" : "To the client's phone"}</Button>
        {!state.next && !state.closed_ms && (
          <Button onPress={() => write("next-noted", { text: inDays })}>Save return interval</Button>
        )}
      </Row>
      {link && (
        <Said>
          Open <b>{location.host}/after</b> there and enter{" "}
          <Code data-code>
            {link.code.slice(0, 4)} {link.code.slice(4)}
          </Code>
          . Good for 30 days; no names shown.
        </Said>
      )}
    </Card>
  );
}
