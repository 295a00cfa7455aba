// Half a page of help with the hold, beside its numbers and the stop.
import { styled } from "styled-components";
import { Key } from "../../parts/controls";
import { Page } from "../help/Page";
import { pages } from "../help/pages";
import { Panel } from "./Panel";

const Leaf = styled.div`
  max-height: min(60vh, 640px);
  overflow-y: auto;
  font-size: 17px;
`;

export default function HoldHelp({ onClose }: { onClose: () => void }) {
  return (
    <Panel role="dialog" aria-label="Help with the hold">
      <Leaf tabIndex={0}>
        {pages
          .filter((p) => p.id === "hold")
          .map((p) => (
            <Page key={p.id} p={p} />
          ))}
      </Leaf>
      <Key $tone="go" onPress={onClose}>
        Close help
      </Key>
    </Panel>
  );
}
