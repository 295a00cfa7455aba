// A pressure pad under the hand: its samples are gathered over a press; what they
// come to is the core's to say. Contact and letting go are seen by force, so that
// nothing need be touched.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import { api, must, type Schemas } from "../api/client";
import type { Core } from "./core";

type Sample = Schemas["PadSample"];

/** Force that counts as contact, held so long; and less for so long is let go. */
const contactN = 0.5;
const contactS = 0.2;
const letGoS = 0.5;
/** A minute of samples says all; older ones of a long press are left out. */
const most = 1200;
/** Phases in which the hand comes off: its force says nothing about the press. */
const comingOff = ["rest", "release", "flush", "paused"];
/** How much of the force before counts: about a second of it, at 20 Hz. */
const smooth = 0.9;
/** Force is written into the log so often. */
const noteS = 1;

export const usePressurePadAddress = () =>
  useQuery({
    queryKey: ["instruments"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => must(api.GET("/api/instruments")),
  }).data?.pressure_pad;

export interface PressurePad {
  on: boolean;
  error?: string;
  reading?: Schemas["PadReading"];
}

interface Handlers {
  onContact: () => void;
  onLetGo: () => void;
  /** Once a second while it is pressed. */
  onForce: (n: number) => void;
}

/** Follows the pad while an address is given. said is passed on, for a stand-in
 * whose hand follows the coach; at is the time of the last score. */
export function usePressurePad(
  core: Core,
  address: string | undefined,
  said: { phase: string; advice: string[] },
  lastScore: number | undefined,
  handlers: Handlers,
): PressurePad {
  const [pad, setPad] = useState<PressurePad>({ on: false });
  const wire = useRef<WebSocket>(undefined);
  const press = useRef<Sample[]>([]);
  const scoreAt = useRef(0);
  const act = useRef(handlers);
  act.current = handlers;
  // The band lies about the force at which the last score was given; in a rest
  // that is the force of the press before.
  const force = useRef(0);
  const pressed = useRef(0);
  const off = comingOff.includes(said.phase);
  const offNow = useRef(off);
  offNow.current = off;
  useEffect(() => {
    if (lastScore !== undefined) scoreAt.current = offNow.current ? pressed.current : force.current;
  }, [lastScore]);
  const anew = ["ready", "return", "moved-off"].includes(said.phase);
  useEffect(() => {
    if (anew) scoreAt.current = 0;
  }, [anew]);

  useEffect(() => {
    if (!address) return setPad({ on: false });
    const socket = (wire.current = new WebSocket(address));
    const touch = watchTouch(act);
    let asked = 0;
    const read = async () => {
      asked += 1;
      const mine = asked;
      const reading = await core.ask("pad", { samples: press.current, at_n: scoreAt.current });
      if (mine === asked && socket.readyState === WebSocket.OPEN) setPad({ on: true, reading });
    };
    socket.onopen = () => setPad({ on: true });
    socket.onmessage = (m) => {
      const s = JSON.parse(String(m.data)) as Sample;
      force.current = s.force_n;
      if (s.force_n >= contactN && !offNow.current)
        pressed.current = smooth * pressed.current + (1 - smooth) * s.force_n;
      if (touch(s) === "began") press.current = [];
      press.current = [...press.current.slice(-most), s];
      // Four times a second is enough for the eye.
      if (press.current.length % 5 === 0) void read();
    };
    socket.onclose = (e) =>
      e.code !== 1000 &&
      setPad({ on: false, error: "The pressure pad does not answer. Go on without it, by hand." });
    return () => {
      socket.onclose = null;
      socket.close(1000);
    };
  }, [address, core]);

  const words = useMemo(() => JSON.stringify(said), [said]);
  useEffect(() => {
    if (pad.on && wire.current?.readyState === WebSocket.OPEN) wire.current.send(words);
  }, [words, pad.on]);
  return pad;
}

/** Tells contact and letting go from the force, and writes it down. */
function watchTouch(act: { current: Handlers }) {
  let touching = false;
  let since: number | undefined;
  let noted = 0;
  return (s: Sample): "began" | undefined => {
    const pressed = s.force_n >= contactN;
    if (touching && s.t - noted >= noteS && pressed) {
      noted = s.t;
      act.current.onForce(s.force_n);
    }
    if (pressed === touching) {
      since = undefined;
      return undefined;
    }
    since ??= s.t;
    if (s.t - since < (pressed ? contactS : letGoS)) return undefined;
    touching = pressed;
    since = undefined;
    if (pressed) act.current.onContact();
    else act.current.onLetGo();
    return pressed ? "began" : undefined;
  };
}
