// Does the list keep its word: of the suspects that it was so sure of, how many had a
// trigger point.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Button, Card, Disclosed, ErrorPanel } from "../../parts/controls";
import { Notice, Row, Said } from "../../parts/layout";
import { plain, sentence } from "../../parts/words";
import { Interval } from "./Interval";

const Bands = styled.div`
  display: grid;
  grid-template-columns: 130px 190px 110px minmax(0, 1fr);
  gap: 6px 14px;
  align-items: center;
  font-variant-numeric: tabular-nums;
  @media (max-width: 700px) {
    grid-template-columns: 90px minmax(0, 1fr);
    > :nth-child(4n) {
      grid-column: 1 / -1;
    }
  }
`;
const verdicts: Record<string, string> = {
  "less-than-said": "fewer than it said",
  "more-than-said": "more than it said",
  none: "",
};
const percent = (v: number) => `${Math.round(v * 100)} %`;

export function Word({ list }: { list: Schemas["Calibration"] }) {
  return (
    <Card $gap={3} data-word>
      <h2>How accurate were the suspects?</h2>
      <Said className="quiet" $small>
        Of the muscles that the list named and hands have searched: how many had a trigger point. The small
        triangle is what the list said, the line where the true share lies.
      </Said>
      <Bands>
        {list.bands.map((b) => (
          <BandRow key={b.from} name={`${percent(b.from)} – ${percent(b.to)}`} b={b} />
        ))}
      </Bands>
      <Disclosed summary="By region">
        <Bands>
          {list.regions.map((r) => (
            <BandRow key={r.region} name={sentence(plain(r.region))} b={r} />
          ))}
        </Bands>
      </Disclosed>
      {list.proposals.map((p) => (
        <ProposalOf key={p.evidence} p={p} />
      ))}
    </Card>
  );
}

function BandRow({ name, b }: { name: string; b: Schemas["Band"] }) {
  const { found } = b;
  return (
    <>
      <span>{name}</span>
      {found.of > 0 ? <Interval s={found} said={b.said} /> : <span className="quiet">nobody searched</span>}
      <span>{found.of > 0 && `${found.yes} of ${found.of}`}</span>
      <Said as="span" $tone={b.verdict === "less-than-said" ? "warn" : undefined}>
        {found.of > 0 && found.few ? "too few to say" : verdicts[b.verdict]}
      </Said>
    </>
  );
}

/** A weight that the practice may take over; nothing changes by itself. */
function ProposalOf({ p }: { p: Schemas["Proposal"] }) {
  const queries = useQueryClient();
  const [error, setError] = useState<Error>();
  const take = async () => {
    try {
      await must(api.PUT("/api/evidence/{id}", { params: { path: { id: p.evidence } }, body: p.proposed }));
      await queries.invalidateQueries();
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Notice data-proposal={p.evidence}>
      <b>{p.name}</b>
      <span>
        {p.text} {p.found.yes} of {p.found.of} were found, where the list said {percent(p.said)}.
      </span>
      <Row $gap={3} $wrap>
        <Button onPress={() => void take()}>
          Raise weight from {p.now.plus} to {p.proposed.plus}
        </Button>
      </Row>
      {error && <ErrorPanel error={error} />}
    </Notice>
  );
}
