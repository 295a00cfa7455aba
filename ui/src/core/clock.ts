// The device's clock, and how far it is off the server's.

/** Time that never goes back, in Unix ms. */
export const now = () => Math.round(performance.timeOrigin + performance.now());

/** Differences below this are the network's. */
const tolerance = 2000;

let offset = 0;

/** Learns from an answer what the server's clock says. */
export function serverSaid(nowMS: number | undefined) {
  if (nowMS === undefined) return;
  const off = nowMS - now();
  offset = Math.abs(off) > tolerance ? off : 0;
}

/** What to add to this device's clock to get the server's; 0 when it is right. */
export const clockOffset = () => offset;

/** When a hold began, by this device's clock. One that was begun here is timed by
 * the clock that began it; one of another device by the server's. */
export function beganAt(hold: { started_ms: number; device_ms: number }): number {
  const ours = Math.abs(hold.started_ms - hold.device_ms - offset) <= tolerance;
  return ours ? hold.device_ms : hold.started_ms - offset;
}
