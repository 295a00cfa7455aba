// All of the help: searched, or printed as a booklet.
import { useState } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button, Card, Text } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import { may } from "../../rights";
import { useTrial } from "../trial/Offer";
import { Page } from "./Page";
import { searched } from "./pages";

const Room = styled.div`
  max-width: 820px;
  margin: 0 auto;
  padding: 30px 28px 60px;
  display: grid;
  gap: 18px;
  @media print {
    padding: 0;
    .tools {
      display: none;
    }
  }
`;

export default function Help({ me }: { me: Schemas["Me"] }) {
  const trial = useTrial();
  const [query, setQuery] = useState("");
  const found = searched(query);
  return (
    <Room>
      <h1>Help</h1>
      <Row className="tools" $align="end">
        <Fill>
          <Text label="Look for" value={query} onChange={setQuery} />
        </Fill>
        {may(me, "put-introduced") && <Button onPress={trial}>Start a trial visit</Button>}
        <Button onPress={() => print()}>Print as a booklet</Button>
      </Row>
      {found.length === 0 && <p role="status">No page has all of these words. Try fewer of them.</p>}
      {found.map((p) => (
        <Card key={p.id}>
          <Page p={p} />
        </Card>
      ))}
    </Room>
  );
}
