// How the room sounds and which key the pedal sends, set before the hands are
// busy.
import { useLayoutEffect, useState } from "react";
import { Key } from "../../parts/controls";
import { Panel } from "./Panel";
import { keyName, type Loudness, type RoomPrefs } from "./roomPrefs";
import { play } from "./tones";
import { canSpeak } from "./useRoom";

const louder: Record<Loudness, Loudness> = { off: "soft", soft: "loud", loud: "off" };
const inWords: Record<Loudness, string> = { off: "Tones: off", soft: "Tones: soft", loud: "Tones: on" };

interface Props {
  prefs: RoomPrefs;
  keep: (p: Partial<RoomPrefs>) => void;
  onClose: () => void;
}

export function RoomSettings({ prefs, keep, onClose }: Props) {
  const [learning, setLearning] = useState(false);
  useLayoutEffect(() => {
    if (!learning) return;
    const learn = (e: KeyboardEvent) => {
      e.preventDefault();
      e.stopPropagation();
      setLearning(false);
      if (e.key !== "Escape") keep({ pedal: [...new Set([...prefs.pedal, e.key])] });
    };
    addEventListener("keydown", learn, { capture: true });
    return () => removeEventListener("keydown", learn, { capture: true });
  }, [learning, prefs.pedal, keep]);
  const loudness = louder[prefs.loudness];
  return (
    <Panel role="dialog" aria-label="Sound and pedal">
      <Key
        onPress={() => {
          keep({ loudness });
          if (loudness !== "off") play("next-rep", loudness);
        }}
      >
        {inWords[prefs.loudness]}
      </Key>
      {canSpeak() && (
        <Key onPress={() => keep({ spoken: !prefs.spoken })}>
          {prefs.spoken ? "Voice prompts: on" : "Voice prompts: off"}
        </Key>
      )}
      <p>
        The pedal sends {new Intl.ListFormat("en", { type: "disjunction" }).format(prefs.pedal.map(keyName))}.
      </p>
      <div className="keys">
        <Key onPress={() => setLearning(true)}>{learning ? "Tread on it now…" : "Set up a pedal"}</Key>
        <Key onPress={() => keep({ pedal: [" ", "PageDown", "Enter"] })}>Default</Key>
      </div>
      <Key $tone="go" onPress={onClose}>
        Done
      </Key>
    </Panel>
  );
}
