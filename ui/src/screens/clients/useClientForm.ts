// A client being registered or changed; what was typed stays until the server
// has it.
import { type FormEvent, useRef, useState } from "react";
import { api, must, type Problem, type Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { type FieldName, typedOf } from "./fields";

type Client = Schemas["Client"];
type Hand = NonNullable<Client["dominant_hand"]>;

export function useClientForm(client: Client | undefined, onSaved: (c: Client) => void) {
  const [id] = useState(() => client?.id ?? uuidv7());
  const [v, set] = useState(() => typedOf(client));
  const [hand, setHand] = useState<Hand>(client?.dominant_hand ?? "");
  const [height, setHeight] = useState(client?.height_cm);
  const [error, setError] = useState<Problem>();
  const [busy, setBusy] = useState(false);
  /** The revision that may be written over, once both versions were seen. */
  const [over, setOver] = useState<number>();
  const sending = useRef(false);
  const field = (name: FieldName) => ({
    name,
    value: v[name],
    onChange: (x: string) => set((old) => ({ ...old, [name]: x })),
    error: error?.fields[name],
  });
  const body = (): Client => ({
    id,
    ...v,
    given_name: v.given_name.trim(),
    family_name: v.family_name.trim(),
    born_on: v.born_on.trim(),
    height_cm: height,
    dominant_hand: hand,
    cautions: client?.cautions ?? [],
    revision: over ?? client?.revision ?? 0,
  });
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    if (sending.current) return;
    sending.current = true;
    setBusy(true);
    setError(undefined);
    try {
      onSaved(await must(api.PUT("/api/clients/{id}", { params: { path: { id } }, body: body() })));
    } catch (x) {
      setError(x as Problem);
    } finally {
      sending.current = false;
      setBusy(false);
    }
  };
  return { id, v, field, hand, setHand, height, setHeight, error, busy, over, setOver, submit };
}
