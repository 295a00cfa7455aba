// An appointment that is moved, or of which is said what became of it.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";
import { instantOf } from "./instant";
import { hourOf, onTheWall } from "./place";
import type { Slot } from "./When";

export function useRebooking(v: Schemas["Visit"], me: Schemas["Me"]) {
  const queries = useQueryClient();
  const was = onTheWall(v.starts_at, me.time_zone);
  const [slot, setSlot] = useState<Slot>({
    date: was.date,
    time: hourOf(was.minute, 24),
    minutes: v.minutes ?? 60,
    room: v.room ?? "",
    therapist: v.therapist_id ?? me.id,
  });
  const [clashes, setClashes] = useState<Schemas["Clash"][]>([]);
  const [error, setError] = useState<Error>();
  const tried = async (act: () => Promise<unknown>) => {
    setError(undefined);
    try {
      await act();
      await queries.invalidateQueries({ queryKey: ["diary"] });
      await queries.invalidateQueries({ queryKey: ["day"] });
    } catch (e) {
      setError(e as Error);
    }
  };
  const rebook = (status: Schemas["Rebooking"]["status"]) =>
    tried(async () => {
      const { date, time, ...rest } = slot;
      const starts_at = instantOf(date, time, me.time_zone);
      const anyway = clashes.length > 0;
      const got = await must(
        api.PUT("/api/visits/{id}/booking", {
          params: { path: { id: v.id } },
          body: { ...rest, starts_at, reason: v.reason, status, revision: v.revision ?? 1, anyway },
        }),
      );
      setClashes(got.visits.length > 0 ? [] : got.clashes);
    });
  const cancelSeries = () =>
    tried(() => must(api.POST("/api/visits/{id}/cancel-series", { params: { path: { id: v.id } } })));
  const set = (over: Partial<Slot>) => {
    setSlot({ ...slot, ...over });
    setClashes([]);
  };
  return { slot, set, clashes, error, rebook, cancelSeries };
}
