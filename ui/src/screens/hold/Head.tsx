// The head of a hold: what is pressed, by which protocol, and what can be set beside it.
import { memo } from "react";
import type { Schemas } from "../../api/client";
import type { Core } from "../../core/core";
import { isLocal } from "../../core/localIDs";
import type { PadSeen } from "../../core/useVisitWire";
import { Key } from "../../parts/controls";
import { Sent } from "../../parts/Sent";
import { plain, sentence } from "../../parts/words";
import { muscleName } from "../visit/pointWords";
import { padWords } from "./PadPanel";
import type { RoomPrefs } from "./roomPrefs";
import type { PadHand } from "./usePadHand";

export type HoldPanel = "room" | "pad" | "help";

interface HeadProps {
  visit: string;
  core: Core;
  hold: Schemas["Hold"];
  prefs: RoomPrefs;
  seen: PadSeen;
  pad: PadHand;
  onOpen: (panel: HoldPanel) => void;
  back: string;
  onBack: () => void;
}

/** What is pressed, by which protocol, within which limits. */
export const Head = memo(function Head(props: HeadProps) {
  const { visit, core, hold, prefs, seen, pad, onOpen, back, onBack } = props;
  const { start } = hold;
  const { limits } = start;
  return (
    <div className="head">
      <div className="what">
        <h1>
          {muscleName(core, start.muscle ?? "")}, {start.side}
        </h1>
        <div className="protocol">
          {start.plan?.name ?? sentence(plain(start.protocol))} · target {limits.target} · ceilings{" "}
          {limits.soft_ceiling} / {limits.hard_ceiling}
        </div>
      </div>
      <Sent />
      {/* What changes its width by itself stands left of all other keys: none of them
       * moves away from under a finger when the client's pad connects. */}
      {!isLocal(visit) && (
        <Key $slim $tone={seen === "lost" ? "warn" : undefined} onPress={() => onOpen("pad")} data-pad={seen}>
          {padWords[seen]}
        </Key>
      )}
      {pad.known && (
        <Key
          $slim
          $tone={pad.using ? "go" : undefined}
          onPress={pad.toggle}
          aria-pressed={pad.using}
          data-pressure-pad={pad.on}
        >
          Pressure pad
        </Key>
      )}
      <Key $slim aria-label="Help with the hold" onPress={() => onOpen("help")}>
        ?
      </Key>
      <Key $slim onPress={() => onOpen("room")}>
        {prefs.loudness === "off" ? "Tones off" : "Sound"}
      </Key>
      <Key $slim onPress={onBack}>
        {back}
      </Key>
    </div>
  );
});
