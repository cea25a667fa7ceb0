import { keepPreviousData, queryOptions, useMutation, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { create } from "zustand";

import { isPending } from "./captures";
import { answered, api } from "./client";
import type { Batch, Capture, ShelfOrder, Wanted } from "./types";

const PENDING_MS = 600;
const QUIET_MS = 15_000;
const ROWS_AT_ONCE = 60;

/** The numbers of all captures that are looked for, in an order. */
export function useFound(wanted: Wanted, order: ShelfOrder) {
  return useQuery({
    queryKey: ["captures", "found", wanted, order],
    placeholderData: keepPreviousData,
    queryFn: () => answered(api.GET("/api/captures/ids", { params: { query: { ...wanted, order } } })),
    refetchInterval: QUIET_MS,
  });
}

/** The latest captures that say some words. */
export function useSaying(words: string) {
  return useQuery({
    queryKey: ["captures", "saying", words],
    placeholderData: keepPreviousData,
    queryFn: async () => (await answered(api.GET("/api/captures", { params: { query: { words, limit: ROWS_AT_ONCE } } }))).captures,
  });
}

/** Captures as they were last told, by number: what is scrolled back to is there at once. */
const useTold = create<{ captures: ReadonlyMap<number, Capture> }>(() => ({ captures: new Map() }));

/** A capture as it was last told; undefined before it was. */
export function useToldCapture(captureId: number): Capture | undefined {
  return useTold((state) => state.captures.get(captureId));
}

/** Asks for the captures from one place of a list to another; often, while something among them is arriving. */
export function useAskedFor(ids: readonly number[], first: number, last: number, words: string): void {
  const chunks: (readonly number[])[] = [];
  for (let at = first - (first % ROWS_AT_ONCE); at <= last && at < ids.length; at += ROWS_AT_ONCE) chunks.push(ids.slice(at, at + ROWS_AT_ONCE));
  useQueries({ queries: chunks.map((chunk) => rowsQuery(chunk, words)) });
}

function rowsQuery(ids: readonly number[], words: string) {
  return queryOptions({
    queryKey: ["captures", "rows", words, ids],
    queryFn: async () => {
      const rows = await answered(api.GET("/api/captures/rows", { params: { query: { ids: [...ids], words } } }));
      useTold.setState(({ captures }) => ({ captures: new Map([...captures, ...rows.map((row) => [row.id, row] as const)]) }));
      return rows;
    },
    refetchInterval: (query) => (query.state.data?.some(isPending) ? PENDING_MS : QUIET_MS),
  });
}

/** The sites and the screens of the captures on the shelf. */
export function useLookedForBy() {
  return useQuery({ queryKey: ["captures", "by"], queryFn: () => answered(api.GET("/api/captures/by")) });
}

export function useSearches() {
  return useQuery({ queryKey: ["searches"], queryFn: () => answered(api.GET("/api/searches")) });
}

/** Keeps a search under a name, in place of one of that name; or lets one go. */
export function useChangeSearches() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (change: { kind: "keep"; name: string; wanted: Wanted; order: ShelfOrder } | { kind: "delete"; searchId: number }) => {
      if (change.kind === "delete") await api.DELETE("/api/searches/{search_id}", { params: { path: { search_id: change.searchId } } });
      else await answered(api.PUT("/api/searches", { body: { name: change.name, wanted: asWanted(change.wanted), order: change.order } }));
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["searches"] }),
  });
}

function asWanted(wanted: Wanted) {
  return { words: "", alone: false, label: "", host: "", screen: "", state: "" as const, ...wanted };
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

/** What was deleted and can still be put back. */
export function useDeleted() {
  return useQuery({ queryKey: ["captures", "deleted"], queryFn: () => answered(api.GET("/api/captures/deleted")) });
}

/** Clear everything that was deleted from the disk, for good. */
export function useClearDeleted() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => api.DELETE("/api/captures/deleted"),
    onSettled: () => queries.invalidateQueries({ queryKey: ["captures", "deleted"] }),
  });
}
