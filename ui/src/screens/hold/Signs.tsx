import type { Schemas } from "../../api/client";
import { Key } from "../../parts/controls";
import { partKeys, signKeys } from "./keys";
import { SaidKey } from "./SaidKey";
import type { Act } from "./useHold";

interface Props {
  /** What the widest key does now. */
  main?: string;
  /** What may be said now, beside the signs. */
  takes: Schemas["HoldEventKind"][];
  ended: boolean;
  /** Where one goes when it has ended. */
  back: string;
  /** Another question stands first: nothing but the widest key and stop. */
  waiting?: boolean;
  /** Nothing can be stopped any more. */
  stopped: boolean;
  onPedal: () => void;
  act: Act;
}

/** The widest key, the part's own two, the signs, and stop. */
export function Signs({ back, main, takes, ended, waiting, stopped, onPedal, act }: Props) {
  const off = ended || waiting;
  return (
    <div className="keys">
      <Key $tone="go" isDisabled={!ended && !main} onPress={onPedal}>
        {ended ? back : (main ?? "Flush")}
        {!waiting && <kbd>{ended ? "space" : "space · pedal"}</kbd>}
      </Key>
      {partKeys(takes).map(([s, on]) => (
        <SaidKey key={s.name} sign={s} off={!on || off} act={act} />
      ))}
      {signKeys.map((s) => (
        <SaidKey key={s.name} sign={s} off={off} act={act} />
      ))}
      <Key className="stop" $tone="stop" isDisabled={stopped} onPress={() => act("client-stop")}>
        Stop<kbd>esc</kbd>
      </Key>
    </div>
  );
}
