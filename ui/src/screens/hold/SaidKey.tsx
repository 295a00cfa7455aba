// A key by which something is said in a hold. It is drawn anew only when it changes itself: there
// are thirty of them, and what the coach says changes with each key.
import { memo } from "react";
import { Key } from "../../parts/controls";
import type { SignKey } from "./keys";
import type { Act } from "./useHold";

interface Props {
  sign: SignKey;
  off?: boolean;
  act: Act;
}

export const SaidKey = memo(function SaidKey({ sign, off, act }: Props) {
  return (
    <Key $tone={sign.tone} isDisabled={off} onPress={() => act(sign.event, sign.value)}>
      {sign.name}
      <kbd>{sign.key.toUpperCase()}</kbd>
    </Key>
  );
});
