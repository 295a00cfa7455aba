// What is sent at once, and what an answer means.
import { api, must, type Problem, type Schemas } from "../api/client";
import { now, serverSaid } from "./clock";
import type { Entry } from "./db";

/** Bytes of a batch: small enough for a slow line, and halved when it is not. */
export const usualBytes = 256_000;
const leastBytes = 2_000;
/** A request that outlives its page may carry no more (browsers: 64 kB in all). */
const keepaliveBytes = 48_000;

/** Answers that mean "not now"; any other refusal is for good. */
const passing = new Set([0, 401, 408, 409, 413, 425, 429, 500, 502, 503, 504]);

/** In the order of writing: ids of the same millisecond do not sort. */
export const inOrder = (a: Entry, b: Entry) =>
  a.event.device_ms - b.event.device_ms || a.event.seq - b.event.seq;

const bytesOf = (e: Schemas["Event"]) => new TextEncoder().encode(JSON.stringify(e)).length + 1;

export interface Batch {
  rows: Entry[];
  bytes: number;
}

/** As many of a visit's entries as so many bytes hold; at least one. */
export function batchOf(rows: Entry[], limit: number): Batch {
  const batch: Batch = { rows: [], bytes: 0 };
  for (const r of rows.slice(0, 2000)) {
    const b = bytesOf(r.event);
    if (batch.rows.length > 0 && batch.bytes + b > limit) break;
    batch.rows.push(r);
    batch.bytes += b;
  }
  return batch;
}

/** Sends a batch and learns the server's clock. */
export async function send(
  visit: string,
  since: number,
  { rows, bytes }: Batch,
): Promise<Schemas["EventAnswer"]> {
  const answer = await must(
    api.POST("/api/visits/{id}/events", {
      params: { path: { id: visit } },
      body: { sent_ms: now(), since, events: rows.map((r) => r.event) },
      keepalive: bytes < keepaliveBytes,
    }),
  );
  serverSaid(answer.now_ms);
  return answer;
}

/** What to do about a refusal. Halve: at once again, with so many bytes. */
export type Verdict = "signed out" | "later" | "refused" | { halve: number };

export function verdictOn(p: Problem, batch: Batch, bytes: number): Verdict {
  if (p.status === 401) return "signed out";
  if ((p.status === 413 || p.status === 408) && batch.rows.length > 1)
    return { halve: Math.max(leastBytes, Math.floor(bytes / 2)) };
  return passing.has(p.status) && p.status !== 413 ? "later" : "refused";
}
