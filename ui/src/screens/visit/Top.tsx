// The head of a visit: whose it is, and the path through it.
import { Link } from "react-router";
import { styled } from "styled-components";
import { useUndo } from "../../core/useUndo";
import { isLocal } from "../../core/localIDs";
import { Button } from "../../parts/controls";
import { twoLines } from "../../parts/layout";
import { upright } from "../../theme";
import type { StepProps } from "./StepProps";
import { openSteps, type Path, stepNames, stepsOf } from "./steps";

const Head = styled.div`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 12px;
  min-width: 0;
  h1 {
    font-size: 21px;
    line-height: 1.1;
    text-wrap: balance;
    ${twoLines}
    min-width: 0;
  }
  h1 a {
    color: inherit;
    text-decoration: none;
  }
  > a {
    white-space: nowrap;
  }
  nav {
    display: flex;
    gap: 2px;
    flex: 1;
    justify-content: center;
  }
  ${upright} {
    flex-wrap: wrap;
    gap: 4px 12px;
    h1 {
      flex: 1;
    }
    nav {
      order: 1;
      flex: 0 0 100%;
      flex-wrap: wrap;
      justify-content: flex-start;
    }
  }
`;
const Step = styled(Link)<{ $open: boolean }>`
  text-decoration: none;
  color: var(--ink-soft);
  padding: 8px 8px;
  border-radius: var(--r1);
  font-weight: 560;
  white-space: nowrap;
  display: flex;
  gap: 7px;
  align-items: center;
  min-height: 44px;
  &[aria-current] {
    background: var(--accent);
    color: var(--accent-ink);
  }
  &::before {
    content: "";
    width: 9px;
    height: 9px;
    border-radius: 50%;
    border: 2px solid currentColor;
    background: ${(p) => (p.$open ? "transparent" : "currentColor")};
  }
`;

interface Props extends StepProps {
  path: Path;
  helping: boolean;
  onHelp: () => void;
}

export function Top({ visit, path, helping, onHelp }: Props) {
  const { open, state } = visit;
  const todo = openSteps(state);
  const name = `${open.client.given_name} ${open.client.family_name}`;
  return (
    <Head>
      <h1>{isLocal(open.client.id) ? name : <Link to={`/clients/${open.client.id}`}>{name}</Link>}</h1>
      <nav aria-label="Steps of the visit">
        {stepsOf(open).map((s) => (
          <Step
            key={s}
            $open={todo[s]}
            to={`?step=${s}`}
            aria-current={path.step === s ? "step" : undefined}
            aria-label={`${stepNames[s]}${todo[s] ? ", open" : ", done"}`}
          >
            {stepNames[s]}
          </Step>
        ))}
      </nav>
      <Link className="stands" to={`/visits/${open.visit.id}/show`}>
        Show the client
      </Link>
      <Button aria-label={`Help with ${stepNames[path.step]}`} aria-pressed={helping} onPress={onHelp}>
        ?
      </Button>
      <UndoButton visit={visit} />
    </Head>
  );
}

function UndoButton({ visit }: Pick<Props, "visit">) {
  const { undo } = useUndo(visit);
  return (
    <Button isDisabled={!undo} onPress={undo}>
      Undo
    </Button>
  );
}
