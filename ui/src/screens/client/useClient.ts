// What is done with a client from their page.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, must, type Schemas } from "../../api/client";
import { uuidv7 } from "../../core/ids";

export function useClient(id: string) {
  const queries = useQueryClient();
  const go = useNavigate();
  const [error, setError] = useState<Error>();
  const params = { params: { path: { id } } };
  const refresh = () => {
    void queries.invalidateQueries({ queryKey: ["clients"] });
    return queries.invalidateQueries({ queryKey: ["course", id] });
  };
  const trying = async (work: () => Promise<void>) => {
    try {
      setError(undefined);
      await work();
    } catch (e) {
      setError(e as Error);
    }
  };
  /** Books a visit that begins now, and goes to it. */
  const begin = (c: Schemas["Client"]) =>
    trying(async () => {
      const visit = uuidv7();
      const body = {
        id: visit,
        client: id,
        starts_at: new Date().toISOString(),
        minutes: 60,
        reason: c.complaint ?? "",
      };
      await must(api.PUT("/api/visits/{id}", { params: { path: { id: visit } }, body }));
      go(`/visits/${visit}`);
    });
  /** Says that a changed birth date is right. */
  const confirmBorn = (c: Schemas["Client"]) =>
    trying(async () => {
      const body = { ...c, born_confirmed: true };
      // What is only read of a client is not sent back.
      for (const k of ["age", "last_visit", "visits", "archived", "legal_hold", "born_was"] as const)
        delete body[k];
      await must(api.PUT("/api/clients/{id}", { ...params, body }));
      await refresh();
    });
  const archive = (away: boolean) =>
    trying(async () => {
      await must(
        away ? api.POST("/api/clients/{id}/archive", params) : api.POST("/api/clients/{id}/restore", params),
      );
      await refresh();
    });
  return { error, begin, archive, confirmBorn, refresh };
}
