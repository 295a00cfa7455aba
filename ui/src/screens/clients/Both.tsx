import { Fragment } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../api/client";
import { Button } from "../../parts/controls";
import { Row, Stack } from "../../parts/layout";
import { type FieldName, fieldNames, type Typed, typedOf } from "./fields";

const Versions = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr 1fr;
  gap: var(--s1) var(--s3);
  margin: 0;
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
`;

interface Props {
  mine: Typed;
  stored: Schemas["Client"];
  chosen: boolean;
  onMine: () => void;
  onStored: () => void;
}

/** Two versions of a client beside each other: nothing is overwritten unseen. */
export function Both({ mine, stored, chosen, onMine, onStored }: Props) {
  const theirs = typedOf(stored);
  const names = Object.keys(fieldNames) as FieldName[];
  const differ = names.filter((k) => mine[k].trim() !== theirs[k]);
  return (
    <Stack data-both>
      <Versions>
        <dt />
        <dd className="quiet">in the record</dd>
        <dd className="quiet">typed here</dd>
        {differ.map((k) => (
          <Fragment key={k}>
            <dt className="quiet">{fieldNames[k]}</dt>
            <dd>{theirs[k] || "–"}</dd>
            <dd>{mine[k] || "–"}</dd>
          </Fragment>
        ))}
      </Versions>
      <Row>
        <Button onPress={onStored}>Keep the record's</Button>
        <Button isDisabled={chosen} onPress={onMine}>
          {chosen ? "Saving will put yours over it" : "Put mine over it"}
        </Button>
      </Row>
    </Stack>
  );
}
