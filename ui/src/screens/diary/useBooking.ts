// An appointment in the making: what is typed, and what became of it.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";
import { putWaiting } from "./waiting";

const usual = 60;

export interface Begun {
  date: string;
  time: string;
  client?: string;
  minutes?: number;
  /** Who is taken off the waiting list by it. */
  waiting?: Schemas["WaitingItem"];
}

export function useBooking(begun: Begun, diary: Schemas["Diary"], me: Schemas["Me"], onBooked: () => void) {
  const queries = useQueryClient();
  const own = diary.people.some((p) => p.id === me.id) ? me.id : (diary.people[0]?.id ?? "");
  const [b, setB] = useState<Schemas["Booking"]>({
    id: uuidv7(),
    client: begun.client ?? "",
    therapist: own,
    date: begun.date,
    time: begun.time,
    minutes: begun.minutes ?? usual,
    every_weeks: 0,
    times: 4,
  });
  const [clashes, setClashes] = useState<Schemas["Clash"][]>([]);
  const [error, setError] = useState<Error>();
  const [done, setDone] = useState(0);
  const set = (over: Partial<Schemas["Booking"]>) => {
    setB({ ...b, ...over });
    setClashes([]);
    setDone(0);
  };
  const tried = async (act: () => Promise<void>) => {
    setError(undefined);
    try {
      await act();
      await queries.invalidateQueries({ queryKey: ["diary"] });
    } catch (e) {
      setError(e as Error);
    }
  };
  const book = (anyway: boolean) =>
    tried(async () => {
      const got = await must(api.POST("/api/bookings", { body: { ...b, anyway } }));
      setClashes(got.visits.length > 0 ? [] : got.clashes);
      setDone(got.visits.length);
      if (got.visits.length === 0) return;
      if (begun.waiting) await putWaiting(begun.waiting, true);
      setB({ ...b, id: uuidv7() });
      onBooked();
    });
  const wait = () =>
    tried(async () => {
      await putWaiting({ id: uuidv7(), client: b.client, minutes: b.minutes, note: "" }, false);
      onBooked();
    });
  return { b, set, clashes, error, done, book, wait };
}
