// Puts a client on the waiting list, or takes one off.
import { api, must, type Schemas } from "../../api/client";

type Item = Pick<Schemas["WaitingItem"], "id" | "client" | "minutes" | "note">;

export const putWaiting = ({ id, client, minutes, note }: Item, done: boolean) =>
  must(api.PUT("/api/waiting/{id}", { params: { path: { id } }, body: { id, client, minutes, note, done } }));
