// Help where one stands: the page of a step, over what is done there.
import { Link } from "react-router";
import { Button, Card } from "../../parts/controls";
import { Fill, Row } from "../../parts/layout";
import { Page } from "./Page";
import { pages } from "./pages";

export default function StepHelp({ step, onClose }: { step: string; onClose: () => void }) {
  const p = pages.find((x) => x.id === step);
  if (!p) return null;
  return (
    <Card $gap={3} role="region" aria-label="Help">
      <Page p={p} />
      <Row>
        <Button $kind="main" onPress={onClose}>
          Close help
        </Button>
        <Fill />
        <Link to="/help">All of the help</Link>
      </Row>
    </Card>
  );
}
