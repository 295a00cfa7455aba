// What several screens of the bench ask the server for.
import { useQuery } from "@tanstack/react-query";
import { api, must } from "../../api/client";

/** What somebody has practised; oneself where nobody is named. */
export const useResults = (person?: string) =>
  useQuery({
    queryKey: ["bench-results", person],
    queryFn: () => must(api.GET("/api/bench/results", { params: { query: person ? { person } : {} } })),
  });

/** What was set. */
export const useAssignments = () =>
  useQuery({ queryKey: ["bench-assignments"], queryFn: () => must(api.GET("/api/bench/assignments")) });

export const reviewKey = (id: string) => ["bench-result", id];
