// A referral letter: drafted by the core from the visit, edited, signed, printed.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { useAskVisit } from "../../../core/useAsk";
import { Button, Card, Disclosed, Text } from "../../../parts/controls";
import { FileLink } from "../../../parts/FileLink";
import { Bullets, Notice, Row, Said, Stack } from "../../../parts/layout";
import { may } from "../../../rights";
import type { StepProps } from "../StepProps";

/** A page of text is read and edited whole. */
const Long = styled.div`
  textarea {
    min-height: 420px;
  }
`;

interface Props extends StepProps {
  me: Schemas["Me"];
}

/** Offered by the program's own reasons to refer; open to write in any visit. */
export function Letter({ visit, me }: Props) {
  const drafted = useAskVisit(visit, "visit-letter", { offset_min: visit.open.offset_min });
  const { letters = [], letter_draft: kept } = visit.state;
  if (!drafted || !may(me, "letter-written")) return null;
  return (
    <Card $gap={3} data-letter={letters.length}>
      {letters.map((l) => (
        <Said key={l.at_ms} as="b" $tone="good">
          Referral letter to {l.to.split("\n")[0]}, signed by {l.name}
        </Said>
      ))}
      {drafted.why.length > 0 && letters.length === 0 && (
        <Notice>
          <b>Refer this client:</b>
          <Bullets>
            {drafted.why.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </Bullets>
        </Notice>
      )}
      {(letters.length > 0 || kept) && (
        <Said $small>
          <FileLink href={`/api/visits/${visit.open.visit.id}/print/letter`}>Print the letter (PDF)</FileLink>
        </Said>
      )}
      <Disclosed summary={letters.length ? "Write another referral letter" : "Write a referral letter"}>
        <Form
          key={letters.length}
          visit={visit}
          me={me}
          text={kept?.text ?? drafted.text}
          to={kept?.to ?? ""}
        />
      </Disclosed>
    </Card>
  );
}

function Form({ visit, me, ...was }: Props & { text: string; to: string }) {
  const [to, setTo] = useState(was.to);
  const [text, setText] = useState(was.text);
  const [error, setError] = useState("");
  const letter = { to, text };
  /** What is typed is kept as a draft when the field is left. */
  const keep = () => {
    if (to !== was.to || text !== was.text) visit.write("letter-written", letter);
  };
  const sign = async (e: React.FormEvent) => {
    e.preventDefault();
    const signed = { ...letter, name: me.name };
    const refused = await visit.preview("letter-written", signed);
    setError(refused);
    if (!refused) visit.write("letter-written", signed);
  };
  return (
    <Stack as="form" $gap={3} onSubmit={sign}>
      <Text label="To (name, then address)" long value={to} error={error} onChange={setTo} onBlur={keep} />
      <Long>
        <Text label="Letter" long value={text} onChange={setText} onBlur={keep} />
      </Long>
      <Row>
        <Button type="submit" $kind="main">
          Sign the letter
        </Button>
      </Row>
    </Stack>
  );
}
