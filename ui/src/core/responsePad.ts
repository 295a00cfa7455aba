// What the client's pad says, kept until the server has confirmed it: a number or
// stop, said again when the wire is back. It needs nothing that plain HTTP does
// not give.
import { uuidv7 } from "./ids";
import { wireAddress } from "./wire";

export interface PadWord {
  id: string;
  /** When it was said, by this device's clock. */
  atMS: number;
  kind: "score" | "client-stop";
  value?: number;
}

export interface PadState {
  /** The wire is up. */
  there: boolean;
  /** The code is not good any more. */
  over: boolean;
  /** What is not confirmed yet. */
  waiting: number;
}

interface Heard {
  id?: string;
  refused?: string;
  over?: boolean;
}

const beatMS = 1000;
const againMS = 700;

/** One pad's wire. Close it when it is done. */
export class PadConnection {
  private socket: WebSocket | undefined;
  private words: PadWord[];
  private beat: number | undefined;
  private retry: number | undefined;
  private closed = false;
  private over = false;
  private readonly place: string;

  constructor(
    private readonly code: string,
    private readonly onChange: (s: PadState) => void,
  ) {
    this.place = `mokren.hand.${code}`;
    this.words = this.kept();
    this.connect();
  }

  say(kind: PadWord["kind"], value?: number) {
    this.words.push({ id: uuidv7(), atMS: Date.now(), kind, ...(value === undefined ? {} : { value }) });
    this.keep();
    this.send();
  }

  close() {
    this.closed = true;
    clearInterval(this.beat);
    clearTimeout(this.retry);
    this.socket?.close();
  }

  private connect() {
    const socket = new WebSocket(wireAddress(`/api/hand/${this.code}/wire`));
    this.socket = socket;
    socket.onopen = () => {
      this.send();
      this.beat = setInterval(() => this.send(), beatMS) as unknown as number;
      this.tell();
    };
    socket.onmessage = (m) => this.hear(JSON.parse(String(m.data)) as Heard);
    socket.onclose = () => {
      clearInterval(this.beat);
      this.tell();
      if (!this.closed && !this.over)
        this.retry = setTimeout(() => this.connect(), againMS) as unknown as number;
    };
  }

  /** All that waits, or only that the pad is there. */
  private send() {
    if (this.socket?.readyState === WebSocket.OPEN) {
      if (this.words.length === 0) this.socket.send("{}");
      for (const { id, atMS, kind, value } of this.words)
        this.socket.send(JSON.stringify({ id, ago_ms: Math.max(0, Date.now() - atMS), kind, value }));
    }
    this.tell();
  }

  private hear({ id, over }: Heard) {
    if (id) this.words = this.words.filter((w) => w.id !== id);
    this.over = this.over || !!over;
    this.keep();
    this.tell();
  }

  private tell() {
    this.onChange({
      there: this.socket?.readyState === WebSocket.OPEN,
      over: this.over,
      waiting: this.words.length,
    });
  }

  private kept(): PadWord[] {
    try {
      return JSON.parse(localStorage.getItem(this.place) ?? "[]") as PadWord[];
    } catch {
      return [];
    }
  }

  private keep() {
    try {
      localStorage.setItem(this.place, JSON.stringify(this.words));
    } catch {
      // kept for as long as the page is open
    }
  }
}
