// What happened is appended here first and sent when it can be. An entry
// leaves only when the server has it. Entries belong to their author: on a
// shared tablet another person's unsent work waits for that person. Of several
// tabs one sends, the others listen.
import { Problem, type Schemas } from "../api/client";
import { batchOf, inOrder, send, usualBytes, verdictOn } from "./batch";
import type { Entry } from "./db";
import { uuidv7 } from "./ids";
import type { SyncStatus } from "./syncStatus";
import { inOneTab } from "./oneTab";
import { sealFor } from "./sealing";
import { addRow, allRows, changeRows, sealRows } from "./waiting";

type Event = Schemas["Event"];

/** One page load is one device: two tabs can never share a sequence. */
export const device = uuidv7();
let seq = 0;
export const nextSeq = () => ++seq;

/** New events of a visit, and ids that the record has refused. */
type Received = (visit: string, events: Event[], refused: string[]) => void;

type Message =
  | { kind: "added" | "received"; visit: string; events: Event[]; refused: string[] }
  | { kind: "changed" | "kick" };

class Outbox {
  private author = "";
  private timer: number | undefined;
  private sending = false;
  private again = false;
  private pause = 500;
  private bytes = usualBytes;
  private seen = new Map<string, number>();
  /** How the last try went. Read when the status is published, not when counting began:
   * counting is asynchronous, and a later result must not be overwritten. */
  private went: Outcome = { online: true, signedOut: false };
  /** Entries that are being made: what they say is asked of the core. */
  private coming = 0;
  private counted = false; // before that nobody is told that nothing waits
  private status: SyncStatus = { waiting: 0, others: 0, stuck: [], online: true, signedOut: false };
  private listeners = new Set<(s: SyncStatus) => void>();
  private receivers = new Set<Received>();
  private tabs = globalThis.BroadcastChannel ? new BroadcastChannel("mokren-outbox") : undefined;

  constructor() {
    globalThis.addEventListener?.("online", () => this.kick());
    this.tabs?.addEventListener("message", (m: MessageEvent<Message>) => this.hear(m.data));
  }

  /** Says whose entries may be opened and sent now, by which key; "" for nobody's. */
  signedIn(author: string, key?: string) {
    this.author = author;
    sealFor(author, key);
    void sealRows();
    void this.report();
    this.kick();
  }

  async add(event: Event) {
    // Said before it is stored: "all in the record" must never be ahead.
    this.show({ ...this.status, waiting: this.status.waiting + 1 });
    await addRow({ id: event.id, visit: event.visit, author: event.author, event });
    this.tell({ kind: "added", visit: event.visit, events: [event], refused: [] });
    await this.report();
    this.kick();
  }

  /** Makes an entry that waits for the core: until it is added, it is not in the record. */
  async making(work: () => Promise<void>) {
    this.coming += 1;
    this.show({ ...this.status, waiting: this.status.waiting + 1 });
    try {
      await work();
    } finally {
      this.coming -= 1;
      void this.report();
    }
  }

  async unsent(visit: string): Promise<Event[]> {
    return (await allRows()).rows
      .filter((r) => r.visit === visit && !r.stuck)
      .sort(inOrder)
      .map((r) => r.event);
  }

  /** Notes which version of a visit this page has; only newer events are asked for. */
  has(visit: string, version: number) {
    this.seen.set(visit, Math.max(version, this.seen.get(visit) ?? 0));
  }

  /** What the record would not take, with why. */
  async refused(): Promise<Entry[]> {
    return (await allRows()).rows.filter((r) => r.author === this.author && r.stuck).sort(inOrder);
  }

  /** Lets go of what was refused, once somebody has read why. */
  async dismiss() {
    await changeRows((await this.refused()).map((r) => r.id));
    await this.report();
    this.tell({ kind: "changed" });
  }

  watch(f: (s: SyncStatus) => void): () => void {
    this.listeners.add(f);
    if (this.counted) f(this.status);
    return () => this.listeners.delete(f);
  }

  onReceived(f: Received): () => void {
    this.receivers.add(f);
    return () => this.receivers.delete(f);
  }

  /** What the record has added of its own: a client's pad, say. */
  received(visit: string, events: Event[]) {
    for (const f of this.receivers) f(visit, events, []);
  }

  kick() {
    clearTimeout(this.timer);
    this.pause = 500;
    void this.flush();
  }

  private tell(m: Message) {
    this.tabs?.postMessage(m);
  }

  private hear(m: Message) {
    if (m.kind === "added" || m.kind === "received")
      for (const f of this.receivers) f(m.visit, m.events, m.refused);
    if (m.kind === "kick" || m.kind === "added") this.kick();
    void this.report();
  }

  private show(s: SyncStatus) {
    this.status = s;
    this.counted = true;
    for (const f of this.listeners) f(s);
  }

  private async report() {
    const { rows, shut } = await allRows();
    const mine = rows.filter((r) => r.author === this.author);
    this.show({
      waiting: this.coming + mine.filter((r) => !r.stuck).length,
      others: shut + rows.length - mine.length,
      stuck: mine.flatMap((r) => (r.stuck ? [r.stuck] : [])),
      ...this.went,
    });
  }

  private async flush(): Promise<void> {
    if (!this.author) return;
    if (this.sending) {
      this.again = true;
      return;
    }
    this.sending = true;
    this.again = false;
    let went: Outcome = { online: true, signedOut: false };
    let mine = true;
    try {
      mine = await inOneTab("mokren-outbox", async () => {
        went = await this.sendAll();
      });
    } finally {
      this.sending = false;
      this.went = went;
      await this.report();
    }
    if (!mine) {
      // Another tab is at it; when it is closed in the middle, this one goes on.
      this.timer = setTimeout(() => void this.flush(), 1000) as unknown as number;
      if (this.status.waiting === 0) clearTimeout(this.timer);
      return;
    }
    if (this.again) return this.flush();
    if (!went.online) {
      this.timer = setTimeout(() => void this.flush(), this.pause) as unknown as number;
      this.pause = Math.min(this.pause * 2, 5000);
    }
  }

  private async sendAll(): Promise<Outcome> {
    const out: Outcome = { online: true, signedOut: false };
    for (;;) {
      const { rows: all } = await allRows();
      const rows = all.filter((r) => r.author === this.author && !r.stuck).sort(inOrder);
      const visits = new Set(rows.map((r) => r.visit));
      let sent = false;
      for (const visit of visits) {
        const went = await this.sendOne(
          visit,
          rows.filter((r) => r.visit === visit),
        );
        sent ||= went === "sent";
        if (went === "signed out") out.signedOut = true;
        if (went === "later" || went === "signed out") out.online = false;
      }
      if (!sent) return out;
    }
  }

  private async sendOne(visit: string, rows: Entry[]): Promise<"sent" | "later" | "signed out"> {
    const batch = batchOf(rows, this.bytes);
    try {
      const answer = await send(visit, this.seen.get(visit) ?? 0, batch);
      this.bytes = usualBytes;
      await this.settle(visit, batch.rows, answer);
      return "sent";
    } catch (e) {
      if (!(e instanceof Problem)) throw e;
      const verdict = verdictOn(e, batch, this.bytes);
      if (verdict === "signed out" || verdict === "later") return verdict;
      if (verdict === "refused") await this.keepAside(batch.rows, e.message);
      else this.bytes = verdict.halve;
      return "sent";
    }
  }

  /** Each entry by its own receipt: what was refused holds up no other. */
  private async settle(visit: string, batch: Entry[], answer: Schemas["EventAnswer"]) {
    const said = answer.receipts.filter((r) => r.result === "refused");
    const why = new Map(said.map((r) => [r.id, r.reason ?? ""]));
    const stuck = (r: Entry) => `${r.event.type.replaceAll("-", " ")}: ${why.get(r.id)}`;
    await changeRows(
      batch.filter((r) => !why.has(r.id)).map((r) => r.id),
      batch.filter((r) => why.has(r.id)).map((r) => ({ ...r, stuck: stuck(r) })),
    );
    const refused = [...why.keys()];
    this.has(visit, answer.version);
    for (const f of this.receivers) f(visit, answer.events, refused);
    this.tell({ kind: "received", visit, events: answer.events, refused });
  }

  private async keepAside(rows: Entry[], why: string) {
    await changeRows(
      [],
      rows.map((r) => ({ ...r, stuck: why })),
    );
  }
}

type Outcome = Pick<SyncStatus, "online" | "signedOut">;

export const outbox = new Outbox();
