import { afterEach, describe, expect, it } from "vitest";
import { beganAt, clockOffset, now, serverSaid } from "./clock";

const hour = 3_600_000;

describe("the device's clock", () => {
  afterEach(() => serverSaid(now()));

  it("is left alone while it is about right", () => {
    serverSaid(now() + 1500);
    expect(clockOffset()).toBe(0);
  });

  it("times a hold that began here by itself, also when it is off", () => {
    serverSaid(now() - hour); // ours is an hour ahead
    expect(Math.round(clockOffset() / 1000)).toBe(-3600);
    const device_ms = now() - 5000;
    expect(beganAt({ device_ms, started_ms: device_ms - hour })).toBe(device_ms);
  });

  it("times a hold of another device by the server's clock", () => {
    serverSaid(now() - hour);
    const started_ms = now() - hour - 5000; // five seconds ago, by the server
    const began = beganAt({ device_ms: started_ms + 7 * hour, started_ms });
    expect(Math.abs(now() - began - 5000)).toBeLessThan(1500);
  });
});
