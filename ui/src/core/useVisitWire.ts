// The wire of a visit's screen: what other sources add is in the log at once, and
// one sees whether the client's pad is there. Without the wire everything still
// arrives, with the next thing that is sent.
import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";
import { outbox } from "./outbox";
import { isLocal } from "./localIDs";
import { wireAddress } from "./wire";

export type PadSeen = "never" | "there" | "lost";

/** A pad that says nothing for so long is lost: it beats every second. */
const lostAfterMS = 2500;
const againMS = 1500;

interface Heard {
  events?: Schemas["Event"][];
  pad?: boolean;
}

export function useVisitWire(visit: string, on: boolean): PadSeen {
  const [pad, setPad] = useState<PadSeen>("never");
  const seen = useRef<number>(undefined);
  useEffect(() => {
    if (!on || isLocal(visit)) return;
    let socket: WebSocket | undefined;
    let retry: number | undefined;
    let ended = false;
    const connect = () => {
      socket = new WebSocket(wireAddress(`/api/visits/${visit}/wire`));
      socket.onmessage = (m) => {
        const { events, pad: there } = JSON.parse(String(m.data)) as Heard;
        if (there) {
          seen.current = Date.now();
          setPad("there");
        }
        if (events) outbox.received(visit, events);
      };
      socket.onclose = () => {
        if (!ended) retry = setTimeout(connect, againMS) as unknown as number;
      };
    };
    connect();
    const watch = setInterval(() => {
      if (seen.current && Date.now() - seen.current > lostAfterMS) setPad("lost");
    }, 250);
    return () => {
      ended = true;
      clearTimeout(retry);
      clearInterval(watch);
      socket?.close();
    };
  }, [visit, on]);
  return pad;
}
