// What happened is appended here first and sent when it can be. An entry
// leaves only when the server has it. Entries belong to their author: on a
// shared tablet another person's unsent work waits for that person.
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { api, must, Problem, type Schemas } from "../api/client";
import { uuidv7 } from "./ids";

type Event = Schemas["Event"];

interface Entry {
  id: string;
  visit: string;
  author: string;
  event: Event;
  /** Why the server would not take it; it stays here and is shown. */
  stuck?: string;
}

/** In the order of writing: ids of the same millisecond do not sort. */
const inOrder = (a: Entry, b: Entry) => a.event.device_ms - b.event.device_ms || a.event.seq - b.event.seq;

interface Tables extends DBSchema {
  outbox: { key: string; value: Entry; indexes: { visit: string } };
  visits: { key: string; value: Schemas["OpenVisit"] };
}

/** One page load is one device: two tabs can never share a sequence. */
export const device = uuidv7();
let seq = 0;
export const nextSeq = () => ++seq;

let db: Promise<IDBPDatabase<Tables>> | undefined;
const tables = () => {
  db ??= openDB<Tables>("mokren", 1, {
    upgrade(d) {
      d.createObjectStore("outbox", { keyPath: "id" }).createIndex("visit", "visit");
      d.createObjectStore("visits");
    },
  });
  return db;
};

export interface Standing {
  waiting: number;
  others: number;
  stuck: string[];
  online: boolean;
  /** The session has ended; signing in again sends what waits. */
  signedOut: boolean;
}

type Received = (visit: string, log: Event[]) => void;

class Outbox {
  private author = "";
  private timer: number | undefined;
  private sending = false;
  private again = false;
  private pause = 500;
  private standing: Standing = { waiting: 0, others: 0, stuck: [], online: true, signedOut: false };
  private listeners = new Set<(s: Standing) => void>();
  private receivers = new Set<Received>();

  constructor() {
    globalThis.addEventListener?.("online", () => this.kick());
  }

  /** Says whose entries may be sent now; "" for nobody. */
  signedIn(author: string) {
    this.author = author;
    void this.report(this.standing.online);
    this.kick();
  }

  async add(event: Event) {
    // Said before it is stored: "all in the record" must never be ahead.
    this.standing = { ...this.standing, waiting: this.standing.waiting + 1 };
    for (const f of this.listeners) f(this.standing);
    await (await tables()).put("outbox", { id: event.id, visit: event.visit, author: event.author, event });
    await this.report(this.standing.online);
    this.kick();
  }

  async unsent(visit: string): Promise<Event[]> {
    const rows = await (await tables()).getAllFromIndex("outbox", "visit", visit);
    return rows.sort(inOrder).map((r) => r.event);
  }

  watch(f: (s: Standing) => void): () => void {
    this.listeners.add(f);
    f(this.standing);
    return () => this.listeners.delete(f);
  }

  onReceived(f: Received): () => void {
    this.receivers.add(f);
    return () => this.receivers.delete(f);
  }

  /** The last log that the server gave, for opening a visit without it. */
  async keep(visit: string, v: Schemas["OpenVisit"]) {
    await (await tables()).put("visits", v, visit);
  }
  async kept(visit: string) {
    return (await tables()).get("visits", visit);
  }

  kick() {
    clearTimeout(this.timer);
    this.pause = 500;
    void this.flush();
  }

  private async report(online: boolean, signedOut = false) {
    const rows = await (await tables()).getAll("outbox");
    const mine = rows.filter((r) => r.author === this.author);
    this.standing = {
      waiting: mine.filter((r) => !r.stuck).length,
      others: rows.length - mine.length,
      stuck: mine.flatMap((r) => (r.stuck ? [r.stuck] : [])),
      online,
      signedOut,
    };
    for (const f of this.listeners) f(this.standing);
  }

  private async flush(): Promise<void> {
    if (!this.author) return;
    if (this.sending) {
      this.again = true;
      return;
    }
    this.sending = true;
    this.again = false;
    let online = true;
    let signedOut = false;
    try {
      const d = await tables();
      const rows = (await d.getAll("outbox"))
        .filter((r) => r.author === this.author && !r.stuck)
        .sort(inOrder);
      for (const visit of new Set(rows.map((r) => r.visit))) {
        const batch = rows.filter((r) => r.visit === visit).slice(0, 1000);
        try {
          const out = await must(
            api.POST("/api/visits/{id}/events", {
              params: { path: { id: visit } },
              body: { events: batch.map((r) => r.event) },
              keepalive: batch.length < 20,
            }),
          );
          // The kept copy grows with the record, so that a visit opened again
          // without a connection is whole.
          const kept = await d.get("visits", visit);
          if (kept) await d.put("visits", { ...kept, events: out.events }, visit);
          for (const f of this.receivers) f(visit, out.events);
          const tx = d.transaction("outbox", "readwrite");
          await Promise.all([...batch.map((r) => tx.store.delete(r.id)), tx.done]);
        } catch (e) {
          const p = e as Problem;
          if (p instanceof Problem && [403, 404, 422].includes(p.status)) {
            const tx = d.transaction("outbox", "readwrite");
            await Promise.all([...batch.map((r) => tx.store.put({ ...r, stuck: p.message })), tx.done]);
          } else {
            online = false;
            signedOut = p.status === 401;
          }
        }
      }
    } finally {
      this.sending = false;
      await this.report(online, signedOut);
    }
    if (this.again) return this.flush();
    if (!online) {
      this.timer = setTimeout(() => void this.flush(), this.pause) as unknown as number;
      this.pause = Math.min(this.pause * 2, 5000);
    }
  }
}

export const outbox = new Outbox();
