// Tones with distinct meaning, made on the spot; nothing to download.
let ctx: AudioContext | undefined;

const tunes: Record<string, [number, number, number][]> = {
  // [frequency Hz, starts at s, lasts s]
  "ask-score": [
    [660, 0, 0.09],
    [660, 0.14, 0.09],
  ],
  "ask-still-on": [
    [660, 0, 0.09],
    [660, 0.14, 0.09],
    [660, 0.28, 0.09],
  ],
  "breathe-and-deepen": [
    [392, 0, 0.16],
    [494, 0.15, 0.16],
    [587, 0.3, 0.26],
  ],
  "sink-slightly": [
    [440, 0, 0.14],
    [494, 0.13, 0.2],
  ],
  "ease-off": [
    [587, 0, 0.16],
    [440, 0.15, 0.3],
  ],
  "release-slowly": [
    [330, 0, 0.5],
    [262, 0.45, 0.7],
  ],
  "move-off": [
    [880, 0, 0.12],
    [880, 0.16, 0.12],
    [880, 0.32, 0.12],
  ],
  stop: [
    [196, 0, 0.7],
    [185, 0, 0.7],
  ],
  "return-lighter": [
    [330, 0, 0.14],
    [392, 0.14, 0.2],
  ],
  done: [
    [392, 0, 0.14],
    [494, 0.13, 0.14],
    [659, 0.26, 0.4],
  ],
  taken: [[784, 0, 0.12]],
  "settle-in": [[440, 0, 0.3]],
  "next-rep": [
    [523, 0, 0.12],
    [523, 0.15, 0.2],
  ],
  rest: [
    [440, 0, 0.12],
    [330, 0.1, 0.4],
  ],
  hold: [[466, 0, 0.1]],
  "change-angle": [
    [494, 0, 0.14],
    [440, 0.13, 0.14],
    [494, 0.26, 0.2],
  ],
  "more-slack": [
    [392, 0, 0.2],
    [349, 0.18, 0.3],
  ],
  "trace-back": [
    [494, 0, 0.14],
    [392, 0.13, 0.3],
  ],
};

const full = 0.22;

export function play(advice: string, loudness: "soft" | "loud" = "loud") {
  const t = tunes[advice];
  if (!t || !globalThis.AudioContext) return;
  ctx ??= new AudioContext();
  for (const [hz, from, len] of t) {
    const o = ctx.createOscillator();
    const g = ctx.createGain();
    const at = ctx.currentTime + from;
    o.frequency.value = hz;
    o.type = "triangle";
    g.gain.setValueAtTime(0.0001, at);
    g.gain.exponentialRampToValueAtTime(loudness === "soft" ? full / 4 : full, at + 0.02);
    g.gain.exponentialRampToValueAtTime(0.0001, at + len);
    o.connect(g).connect(ctx.destination);
    o.start(at);
    o.stop(at + len + 0.05);
  }
}
