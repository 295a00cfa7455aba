// The simulated client in a hold: the hand's force and the question for a number. What the client feels
// and says reaches the real hold as it would by hand.
import { useEffect, useRef } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../parts/controls";
import { Row } from "../../../parts/layout";
import type { LiveHold } from "../../hold/useHold";
import { HoldingHand } from "../exercise/HoldingHand";
import type { Told } from "../exercise/useExercise";
import { useBenchVisit } from "./useBenchVisit";
import { useFinish } from "./useFinish";

const Dock = styled.aside`
  display: grid;
  gap: 10px;
  padding: 14px 18px;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: var(--r2);
  .says {
    font: 600 30px/1.15 var(--serif);
    min-height: 36px;
  }
`;

/** From so much on the hand is on. */
const contactN = 2;
const begins: ReadonlySet<string> = new Set(["ready", "return", "moved-off"]);

interface Props {
  visit: string;
  me: Schemas["Me"];
  hold: Schemas["Hold"];
  live: LiveHold;
}

export default function BenchDock({ visit, me, hold, live }: Props) {
  const client = useBenchVisit(visit, hold.start.protocol);
  const { finish } = useFinish(visit, me, client?.doing);
  const { act, view } = live;
  const doing = client?.doing;
  const whole = client?.exercise === "visit";
  const begun = useRef(false);
  useEffect(() => {
    if (!doing || !whole || begun.current) return;
    begun.current = true;
    void doing.act({ action: "hold", protocol: hold.start.protocol });
  }, [doing, whole, hold.start.protocol]);
  if (!doing || !client) return null;
  const onForce = (n: number, before: number) => {
    const { phase } = view.line;
    if (before < contactN && n >= contactN) act(phase === "paused" ? "resume" : "contact");
    if (before >= contactN && n < contactN && !begins.has(phase)) act("release");
  };
  const onAnswer = (told: Told[]) => {
    const n = told.findLast((t) => /^\d+$/.test(t.says ?? ""))?.says;
    if (n !== undefined && view.takes.includes("score")) act("score", Number(n));
  };
  const last = doing.told.findLast((t) => t.says && t.says !== doing.told[0]?.says);
  return (
    <Dock aria-label="Simulated client" data-says={last?.says ?? ""}>
      <div className="says" aria-live="polite">
        {last?.says ? `“${last.says}”` : "Press slowly, then ask."}
      </div>
      <HoldingHand doing={doing} onForce={onForce} onAnswer={onAnswer} />
      <Row $wrap>
        <Button
          onPress={() => {
            void doing.act({ action: "sign" });
            if (view.takes.includes("nerve-sign")) act("nerve-sign", "tingling");
          }}
        >
          That is a sign
        </Button>
        <Button onPress={() => void doing.act({ action: "move" })}>Move off it</Button>
        {!whole && (
          <Button $kind={live.ended ? "main" : "plain"} onPress={() => void finish()}>
            Finish and review
          </Button>
        )}
      </Row>
    </Dock>
  );
}
