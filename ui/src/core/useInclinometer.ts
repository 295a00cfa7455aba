// The inclinometer on its own wire: samples go to the core, which says when a
// reading is steady enough to be taken.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, must, type Schemas } from "../api/client";
import type { Core } from "./core";

export interface Inclinometer {
  /** What it shows now. */
  deg?: number;
  distance_cm?: number;
  /** Share of the steady time that has passed, 0–1. */
  share: number;
  error?: string;
}

/** Whether this installation has an instrument, and where it streams. */
export const useInclinometerAddress = () =>
  useQuery({
    queryKey: ["instruments"],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => must(api.GET("/api/instruments")),
  }).data?.inclinometer;

/** Follows the stream while an address is given; every steady reading is handed
 * to onTaken once. */
export function useInclinometer(
  core: Core,
  address: string | undefined,
  mode: Schemas["Watch"]["mode"],
  usual: { deg: number; cm?: number },
  onTaken: (t: Schemas["SteadyReading"]) => void,
): Inclinometer {
  const [live, setLive] = useState<Inclinometer>({ share: 0 });
  const taken = useRef(onTaken);
  taken.current = onTaken;
  const wire = useRef<WebSocket>(undefined);
  // Only the stand-in listens: it moves about as far as is usual.
  const expect = JSON.stringify({ expect_deg: usual.deg, expect_cm: usual.cm ?? 0 });
  const expected = useRef(expect);
  expected.current = expect;
  useEffect(() => {
    if (wire.current?.readyState === WebSocket.OPEN) wire.current.send(expect);
  }, [expect]);
  useEffect(() => {
    setLive({ share: 0 });
    if (!address) return;
    const socket = (wire.current = new WebSocket(`${address}?mode=${mode}`));
    let watch: Schemas["Watch"] = { mode, share: 0 };
    let ended = false;
    socket.onopen = () => socket.send(expected.current);
    // Each sample is judged with the watch that the one before has left; what comes while the core is
    // asked is asked together.
    let waiting: Schemas["Sample"][] = [];
    const take = async () => {
      const samples = waiting;
      waiting = [];
      const last = samples.at(-1);
      if (!last) return;
      const out = await core.ask("steady", { watch, samples });
      if (ended) return;
      watch = out.watch;
      setLive({ deg: last.deg, distance_cm: last.distance_cm, share: watch.share });
      for (const t of out.taken) taken.current(t);
    };
    const unread = () => {
      if (ended) return;
      setLive({
        share: 0,
        error: "The inclinometer sends something that cannot be read. Type the reading instead.",
      });
    };
    let queue = Promise.resolve();
    socket.onmessage = (m) => {
      try {
        waiting.push(JSON.parse(String(m.data)) as Schemas["Sample"]);
      } catch {
        return unread();
      }
      queue = queue.then(take).catch(unread);
    };
    socket.onclose = (e) =>
      e.code !== 1000 &&
      setLive({
        share: 0,
        error: "The inclinometer does not answer. Switch it on and try again, or type the reading.",
      });
    return () => {
      ended = true;
      socket.onclose = null;
      socket.close(1000);
    };
  }, [core, address, mode]);
  return live;
}
