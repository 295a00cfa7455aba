// The force of the hand: by the slider and its keys, or from the pressure pad.
import { useEffect, useState } from "react";
import type { Schemas } from "../../../api/client";
import { usePressurePadAddress } from "../../../core/usePressurePad";

export interface HandForce {
  newtons: number;
  set: (n: number) => void;
  /** Whether there is a pad, and whether it is used. */
  pad: boolean;
  byPad: boolean;
  toggle: () => void;
}

export function useHandForce(first: number): HandForce {
  const [newtons, set] = useState(first);
  const [byPad, setByPad] = useState(false);
  const address = usePressurePadAddress();
  useEffect(() => {
    if (!byPad || !address) return;
    const socket = new WebSocket(address);
    socket.onmessage = (m) =>
      set(Math.round((JSON.parse(String(m.data)) as Schemas["PadSample"]).force_n * 10) / 10);
    return () => socket.close(1000);
  }, [byPad, address]);
  return { newtons, set, pad: !!address, byPad, toggle: () => setByPad(!byPad) };
}

/** The most that the slider gives. */
export const mostN = 40;
