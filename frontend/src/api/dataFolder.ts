import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api, sendForm } from "./client";
import { isPending } from "./captures";

const POLL_MS = 500;

/** What the data folder holds. */
export function useDataFolder() {
  return useQuery({ queryKey: ["data folder"], queryFn: () => answered(api.GET("/api/data-folder")) });
}

/** Clears what is made again when it is asked for. */
export function useMakeRoom() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (kind: "views" | "documents") => api.DELETE("/api/data-folder/{kind}", { params: { path: { kind } } }),
    onSettled: () => queries.invalidateQueries({ queryKey: ["data folder"] }),
  });
}

/** The archives that were brought in lately, followed while one is under way. */
export function useArchives() {
  const queries = useQueryClient();
  return useQuery({
    queryKey: ["archives"],
    queryFn: async () => {
      const rows = await answered(api.GET("/api/archives"));
      if (rows.some(isPending)) void queries.invalidateQueries({ queryKey: ["captures"] });
      return rows;
    },
    refetchInterval: ({ state }) => (state.data?.some(isPending) ? POLL_MS : false),
  });
}

export function useBringArchive() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("archive", file, file.name);
      return sendForm("/api/archives", form);
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["archives"] }),
  });
}

export function useStopArchive() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (archiveId: number) => answered(api.POST("/api/archives/{archive_id}/stop", { params: { path: { archive_id: archiveId } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["archives"] }),
  });
}
