// What is written into a visit's log: every event type with the shape of its
// body, from the server's own description.
import type { Schemas } from "../api/client";

export type Bodies = Schemas["EventBodies"];
type EventType = keyof Bodies;
export type LogEvent = Schemas["Event"];

/** Writes an event and gives its id. */
export type Write = <T extends EventType>(type: T, body: Bodies[T]) => string;

/** Why an event would be set aside if it were written now; "" when it would not. */
export type Preview = <T extends EventType>(type: T, body: Bodies[T]) => Promise<string>;
