// The simulated client in a hold: the hand's force and the question for a number. What the client feels
// and says reaches the real hold as it would by hand.
import { useEffect, useRef } from "react";
import { styled } from "styled-components";
import type { Schemas } from "../../../api/client";
import { Button } from "../../../parts/controls";
import { Row } from "../../../parts/layout";
import type { LiveHold } from "../../hold/useHold";
import { HoldingHand } from "../exercise/HoldingHand";
import type { ClientTold } from "../exercise/useExercise";
import { upright } from "../../../theme";
import { useBenchVisit } from "./useBenchVisit";
import { useFinish } from "./useFinish";

const Dock = styled.aside`
  display: grid;
  align-content: space-between;
  gap: 14px;
  min-height: 0;
  overflow: auto;
  padding: 22px;
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: var(--r2);
  .says {
    font: 600 40px/1.15 var(--serif);
    min-height: 140px;
    overflow-wrap: anywhere;
  }
  label,
  label b {
    font-size: 22px;
  }
  ${upright} {
    gap: 6px;
    padding: 12px 18px;
    .says {
      min-height: 48px;
    }
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
    // Who comes back to a hold does not begin it again.
    const key = `bench-hold-${hold.id}`;
    if (sessionStorage.getItem(key)) return;
    sessionStorage.setItem(key, "begun");
    void doing.act({ action: "hold", protocol: hold.start.protocol });
  }, [doing, whole, hold.id, hold.start.protocol]);
  // A sign that is noted in the hold was heard.
  const signs = view.summary.signs?.length ?? 0;
  const heard = useRef(signs);
  useEffect(() => {
    if (signs > heard.current) void doing?.act({ action: "sign" });
    heard.current = signs;
  }, [signs, doing]);
  if (!doing || !client) return null;
  const onForce = (n: number, before: number) => {
    const { phase } = view.line;
    if (before < contactN && n >= contactN) act(phase === "paused" ? "resume" : "contact");
    if (before >= contactN && n < contactN && !begins.has(phase)) act("release");
  };
  const onAnswer = (told: ClientTold[]) => {
    const n = told.findLast((t) => /^\d+$/.test(t.says ?? ""))?.says;
    if (n !== undefined && view.takes.includes("score")) act("score", Number(n));
  };
  const last = doing.told.findLast((t) => t.says && t.says !== client.story);
  return (
    <Dock aria-label="Simulated client" data-says={last?.says ?? ""}>
      <div className="says" aria-live="polite">
        {last?.says ? `“${last.says}”` : "Press slowly, then ask."}
      </div>
      <HoldingHand doing={doing} onForce={onForce} onAnswer={onAnswer} />
      <Row $wrap>
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
