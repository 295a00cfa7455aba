// What the finger meets as sound and as vibration: the firmer, the higher.
let ctx: AudioContext | undefined;
let voice: { tone: OscillatorNode; gain: GainNode } | undefined;

const lowestHz = 110;
const highestHz = 440;
/** Firm enough to be felt by a device that vibrates. */
const firm = 55;

/** Begins or changes the tone; needs a touch before, as browsers ask. */
export function soundOf(feels: number) {
  ctx ??= new AudioContext();
  if (!voice) {
    const tone = ctx.createOscillator();
    const gain = ctx.createGain();
    gain.gain.value = 0.04;
    tone.connect(gain).connect(ctx.destination);
    tone.start();
    voice = { tone, gain };
  }
  voice.tone.frequency.setTargetAtTime(
    lowestHz + ((highestHz - lowestHz) * feels) / 100,
    ctx.currentTime,
    0.01,
  );
}

export function silence() {
  voice?.tone.stop();
  voice = undefined;
}

export function shake(feels: number) {
  if (feels >= firm && "vibrate" in navigator) navigator.vibrate(Math.round((feels - firm) / 2) + 4);
}
