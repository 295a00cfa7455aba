// Writing what the practice adds to a muscle.
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must, type Schemas } from "../../api/client";

type Done = () => void;
export type OwnEdits = ReturnType<typeof useOwn>;

export function useOwn(muscle: Schemas["MuscleID"]) {
  const queries = useQueryClient();
  const [error, setError] = useState<Error>();
  const run = async (call: Promise<Schemas["OwnAtlas"]>, then?: Done) => {
    setError(undefined);
    try {
      queries.setQueryData(["own-atlas"], await call);
      then?.();
    } catch (e) {
      setError(e as Error);
    }
  };
  const at = (id: string) => ({ params: { path: { muscle, id } } });
  return {
    error,
    keepNote: (text: string, revision: number) => {
      const body = { text, revision } as Schemas["OwnNote"];
      return run(must(api.PUT("/api/atlas/{muscle}/note", { params: { path: { muscle } }, body })));
    },
    putSite: (s: Schemas["OwnSite"], then: Done) =>
      run(must(api.PUT("/api/atlas/{muscle}/sites/{id}", { ...at(s.id), body: s })), then),
    removeSite: (id: string, then: Done) =>
      run(must(api.DELETE("/api/atlas/{muscle}/sites/{id}", at(id))), then),
    restore: (then: Done) =>
      run(must(api.DELETE("/api/atlas/{muscle}", { params: { path: { muscle } } })), then),
  };
}
