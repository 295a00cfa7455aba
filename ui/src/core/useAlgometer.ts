// The pressure algometer on its own wire: its samples are gathered from contact
// to the client's stop; what they come to is the core's to say.
import { useEffect, useRef, useState } from "react";
import { useQuery } from "@tanstack/react-query";
import { api, must, type Schemas } from "../api/client";

type Sample = Schemas["Force"];

/** The tip has met the skin. */
const contactN = 0.5;
/** So many of the latest samples say how fast the force rises: half a second. */
const latest = 10;

export interface Algometer {
  kPa?: number;
  /** Rise in kPa/s while it is pressed. */
  rise?: number;
  pressing: boolean;
  error?: string;
}

/** Where each instrument streams, as far as this installation has it. */
export const useInstruments = () =>
  useQuery({
    queryKey: ["instruments"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => must(api.GET("/api/instruments")),
  }).data;

/** What presses: the algometer's tip, or the pad's face. */
export const pressers = {
  algometer: { tipCM2: 1, name: "algometer" },
  pressure_pad: { tipCM2: 2, name: "pressure pad" },
} as const;
export type Presser = keyof typeof pressers;

/** Follows the stream while an address is given. stop gives the trial, once a
 * press is under way. */
export function useAlgometer(address: string | undefined, by: Presser) {
  const { tipCM2, name } = pressers[by];
  const [live, setLive] = useState<Algometer>({ pressing: false });
  const trial = useRef<Sample[]>([]);
  const wire = useRef<WebSocket>(undefined);
  useEffect(() => {
    trial.current = [];
    setLive({ pressing: false });
    if (!address) return;
    const socket = (wire.current = new WebSocket(address));
    // Only a stand-in listens: it presses as a hand would.
    socket.onopen = () => socket.send(JSON.stringify({ trial: true }));
    const kPa = (n: number) => (n * 10) / tipCM2;
    socket.onmessage = (m) => {
      const s = JSON.parse(String(m.data)) as Sample;
      if (s.force_n < contactN) trial.current = [];
      else trial.current.push(s);
      const last = trial.current.slice(-latest);
      const [first] = last;
      const rise = first && s.t > first.t ? kPa(s.force_n - first.force_n) / (s.t - first.t) : undefined;
      setLive({ kPa: kPa(s.force_n), rise, pressing: trial.current.length > 0 });
    };
    socket.onclose = (e) =>
      e.code !== 1000 &&
      setLive({
        pressing: false,
        error: `The ${name} does not answer. Switch it on and try again, or type the readings.`,
      });
    return () => {
      socket.onclose = null;
      socket.close(1000);
    };
  }, [address, tipCM2, name]);
  const stop = (): Schemas["Trial"] | undefined => {
    const samples = trial.current;
    const end = samples.at(-1);
    if (!end || samples.length < 2) return undefined;
    trial.current = [];
    // Only the stand-in listens: it lifts the tip as a hand would.
    wire.current?.send(JSON.stringify({ stopped: true }));
    return { samples, stopped_at_t: end.t };
  };
  return { live, stop };
}
