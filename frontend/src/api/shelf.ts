import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { isPending } from "./captures";
import { answered, api } from "./client";
import type { Batch, Wanted } from "./types";

const PENDING_MS = 600;
const QUIET_MS = 15_000;

/** What of the shelf is looked for, newest first; asked again often while something is arriving. */
export function useWanted(wanted: Wanted) {
  return useInfiniteQuery({
    queryKey: ["captures", "wanted", wanted],
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) => answered(api.GET("/api/captures", { params: { query: { ...wanted, limit: 60, before: pageParam } } })),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.next_before,
    refetchInterval: (query) => {
      const captures = query.state.data?.pages.flatMap((page) => page.captures) ?? [];
      return captures.some(isPending) ? PENDING_MS : QUIET_MS;
    },
  });
}

/** The numbers of all captures that are looked for. */
export async function allWanted(wanted: Wanted): Promise<number[]> {
  return (await answered(api.GET("/api/captures/ids", { params: { query: wanted } }))).ids;
}

export function useFolders() {
  return useQuery({ queryKey: ["captures", "folders"], queryFn: () => answered(api.GET("/api/folders")) });
}

export function useLabels() {
  return useQuery({ queryKey: ["captures", "labels"], queryFn: () => answered(api.GET("/api/labels")) });
}

export type FolderChange =
  | { kind: "make"; name: string; parent: number | null }
  | { kind: "change"; folderId: number; name: string; parent: number | null }
  | { kind: "delete"; folderId: number };

export function useChangeFolders() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (change: FolderChange) => {
      if (change.kind === "make") return (await answered(api.POST("/api/folders", { body: { name: change.name, parent: change.parent } }))).id;
      const params = { path: { folder_id: change.folderId } };
      if (change.kind === "delete") await api.DELETE("/api/folders/{folder_id}", { params });
      else await api.PUT("/api/folders/{folder_id}", { params, body: { name: change.name, parent: change.parent } });
      return change.folderId;
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["captures"] }),
  });
}

/** Moves, labels, deletes or puts back many captures at once; which they were. */
export function useBatch() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (batch: Batch) => (await answered(api.POST("/api/captures/batch", { body: { ids: [], label: "", ...batch } }))).ids,
    onSettled: () => queries.invalidateQueries({ queryKey: ["captures"] }),
  });
}
