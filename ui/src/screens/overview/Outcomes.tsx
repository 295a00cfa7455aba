// What each protocol came to over all clients, and whether the list of suspects keeps
// its word.
import { useQuery } from "@tanstack/react-query";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Card, Disclosed, Failed, Waiting } from "../../parts/controls";
import { Said } from "../../parts/layout";
import { Table } from "../../parts/Table";
import { plain, sentence } from "../../parts/words";
import { Interval } from "./Interval";
import { Word } from "./Word";

const Counted = styled(Table)`
  .bar {
    width: 190px;
  }
  @media (max-width: 700px) {
    .bar {
      display: none;
    }
  }
`;

export function Outcomes() {
  const q = useQuery({ queryKey: ["outcomes"], queryFn: () => must(api.GET("/api/practice/outcomes")) });
  if (q.error) return <Failed error={q.error} onRetry={() => q.refetch()} />;
  if (!q.data) return <Waiting>Counting…</Waiting>;
  const { protocols, muscles, list } = q.data;
  return (
    <>
      <Card $gap={3} data-outcomes>
        <h2>What worked, over all clients</h2>
        <Said className="quiet" $small>
          Points pressed by one protocol alone, number when found against the recheck. The line is where the
          true share lies with 95 % confidence.
        </Said>
        {protocols.length === 0 ? (
          <p className="quiet">Nothing was found and rechecked yet.</p>
        ) : (
          <Rows list={protocols.map((w) => ({ name: sentence(plain(w.protocol)), w }))} />
        )}
        {muscles.length > 0 && (
          <Disclosed summary="By muscle">
            <Rows
              list={muscles.flatMap((m) =>
                m.worked.map((w) => ({ name: `${m.name}: ${plain(w.protocol)}`, w })),
              )}
            />
          </Disclosed>
        )}
      </Card>
      <Word list={list} />
    </>
  );
}

function Rows({ list }: { list: { name: string; w: Schemas["ProtocolOutcome"] }[] }) {
  return (
    <Counted>
      <thead>
        <tr>
          <th>Protocol</th>
          <th>Clearly lower</th>
          <th className="bar">
            <span className="away">Share</span>
          </th>
          <th>Mean change</th>
          <th>Pressure a point</th>
        </tr>
      </thead>
      <tbody>
        {list.map(({ name, w }) => (
          <tr key={name}>
            <td>{name}</td>
            <td>
              {w.clear.yes} of {w.clear.of}
              {w.clear.few && <span className="quiet"> · too few</span>}
            </td>
            <td className="bar">
              <Interval s={w.clear} />
            </td>
            <td>{w.drop > 0 ? `−${w.drop.toFixed(1)}` : `+${(-w.drop).toFixed(1)}`}</td>
            <td>{w.seconds_per_point === undefined ? "–" : `${Math.round(w.seconds_per_point)} s`}</td>
          </tr>
        ))}
      </tbody>
    </Counted>
  );
}
