// The client's pad during a hold: one large upright 0 to 10, and stop. It knows
// the practice's name and nothing else.
import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { useParams } from "react-router";
import { styled } from "styled-components";
import { api, must } from "../../api/client";
import { PadConnection, type PadState } from "../../core/responsePad";
import { ErrorPanel, Waiting } from "../../parts/controls";
import { Enter } from "../pad/Enter";
import { Page } from "../pad/Page";
import { UprightScale } from "./UprightScale";

const Room = styled.main`
  height: 100dvh;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) 104px;
  gap: 12px;
  padding: 14px;
  max-width: 560px;
  margin: 0 auto;
  background: var(--paper);
  color: var(--ink);
  user-select: none;
  .top {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    font-size: 17px;
    color: var(--ink-soft);
  }
  .top b {
    color: var(--ink);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .there[data-there="false"] {
    color: var(--warn);
  }
  .stop {
    border: 2px solid var(--stop);
    border-radius: 18px;
    background: var(--stop-soft);
    color: var(--stop);
    font: 640 40px/1 var(--text);
    cursor: pointer;
  }
`;

export default function ResponsePad() {
  const { code } = useParams();
  if (!code) return <Enter at="/hand" />;
  return <Paired code={code} />;
}

function usePad(code: string, on: boolean) {
  const [state, setState] = useState<PadState>({ there: false, over: false, waiting: 0 });
  const pad = useRef<PadConnection>(undefined);
  useEffect(() => {
    if (!on) return;
    const p = new PadConnection(code, setState);
    pad.current = p;
    return () => p.close();
  }, [code, on]);
  const say = useCallback((n: number) => pad.current?.say("score", n), []);
  const stop = useCallback(() => pad.current?.say("client-stop"), []);
  return { state, say, stop };
}

function Paired({ code }: { code: string }) {
  const told = useQuery({
    queryKey: ["hand", code],
    retry: false,
    queryFn: () => must(api.GET("/api/hand/{code}", { params: { path: { code } } })),
  });
  const { state, say, stop } = usePad(code, !!told.data);
  const [score, setScore] = useState<number>();
  const [stopped, setStopped] = useState(false);
  useEffect(() => {
    document.documentElement.dataset.mode = "table";
    return () => {
      delete document.documentElement.dataset.mode;
    };
  }, []);
  if (told.error || state.over)
    return (
      <Page>
        <ErrorPanel error={told.error ?? new Error("This code is over. Ask your therapist for a new one.")} />
      </Page>
    );
  if (!told.data) return <Waiting>Connecting…</Waiting>;
  return (
    <Room data-there={state.there} data-waiting={state.waiting}>
      <div className="top">
        <b>{told.data.practice}</b>
        <span className="there" data-there={state.there} role="status">
          {inWords(state)}
        </span>
      </div>
      <UprightScale
        value={score}
        onSay={(n) => {
          setScore(n);
          setStopped(false);
          say(n);
        }}
      />
      <button
        className="stop"
        onClick={() => {
          setStopped(true);
          stop();
        }}
      >
        {stopped ? "Your therapist has been told to stop" : "Stop"}
      </button>
    </Room>
  );
}

function inWords({ there, waiting }: PadState) {
  if (there) return "with your therapist";
  return waiting ? "connecting… say it aloud too" : "connecting…";
}
