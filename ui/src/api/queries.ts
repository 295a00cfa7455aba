// What several screens ask the server for, under one key each.
import { useQuery } from "@tanstack/react-query";
import { isLocal } from "../core/localIDs";
import { api, must } from "./client";

/** A client with visits and course; all visits, or the first and latest ones. */
export const useCourse = (id: string, all = false) =>
  useQuery({
    queryKey: ["course", id, all],
    enabled: !isLocal(id),
    queryFn: () => must(api.GET("/api/clients/{id}", { params: { path: { id }, query: { all } } })),
    // The latest visits stay on screen while all are fetched.
    placeholderData: (before, query) => (query?.queryKey[1] === id ? before : undefined),
  });

/** A client's posture photographs, the latest first. */
export const usePhotos = (client: string) =>
  useQuery({
    queryKey: ["photos", client],
    enabled: !!client,
    queryFn: () => must(api.GET("/api/clients/{id}/photos", { params: { path: { id: client } } })),
  });

export const letterheadKey = ["letterhead"];

/** How the practice is named and reached. */
export const useLetterhead = () =>
  useQuery({ queryKey: letterheadKey, queryFn: () => must(api.GET("/api/practice/letterhead")) });
