// What the owner sets for the whole practice.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { api, must, type Schemas } from "../../api/client";
import { Card, Choice, Trouble } from "../../parts/controls";
import { Schools } from "./Schools";

const Room = styled.div`
  max-width: 760px;
  margin: 0 auto;
  padding: 30px 28px 60px;
  display: grid;
  gap: 18px;
`;

const hours = [0, 8, 24, 72, 168] as const;
const inWords: Record<number, string> = {
  0: "no copies",
  8: "8 hours",
  24: "a day",
  72: "3 days",
  168: "a week",
};

export default function Practice({ me }: { me: Schemas["Me"] }) {
  const queries = useQueryClient();
  const [error, setError] = useState<Error>();
  const keep = async (own: Partial<Schemas["PracticeSettings"]>) => {
    setError(undefined);
    const { copy_hours, protocol } = me;
    try {
      await must(api.PUT("/api/practice", { body: { copy_hours, protocol, ...own } }));
      await queries.invalidateQueries({ queryKey: ["me"] });
    } catch (e) {
      setError(e as Error);
    }
  };
  return (
    <Room>
      <h1>{me.practice}</h1>
      <Card $gap={3}>
        <h2>Copies of visits on a device</h2>
        <p className="quiet">
          A visit that was opened on a device can be opened there again when there is no connection at all.
          Its copy is sealed, opens only for the person who opened it, and is gone when that person signs out.
        </p>
        <Choice
          label="Keep them for"
          value={me.copy_hours}
          options={hours.includes(me.copy_hours as never) ? hours : [...hours, me.copy_hours]}
          describe={(h) => inWords[h] ?? `${h} hours`}
          onChoose={(copy_hours) => void keep({ copy_hours })}
        />
        {error && <Trouble error={error} />}
      </Card>
      <Schools standard={me.protocol} onStandard={(protocol) => void keep({ protocol })} />
    </Room>
  );
}
