import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api, sendForm } from "./client";
import type { RoutineDetail, RoutineDocument, Run, RunIn } from "./types";

const PENDING_MS = 700;
const ITEMS_AT_ONCE = 60;

export function useRoutines() {
  return useQuery({ queryKey: ["routines"], queryFn: () => answered(api.GET("/api/routines")) });
}

export function useStarters() {
  return useQuery({ queryKey: ["routines", "starters"], queryFn: () => answered(api.GET("/api/routines/starters")), staleTime: Infinity });
}

export function useRoutine(routineId: number) {
  return useQuery({
    queryKey: ["routine", routineId],
    queryFn: () => answered(api.GET("/api/routines/{routine_id}", { params: { path: { routine_id: routineId } } })) as Promise<RoutineDetail>,
  });
}

export type RoutineChange =
  | { kind: "delete"; id: number }
  | { kind: "restore"; id: number }
  | { kind: "duplicate"; id: number }
  | { kind: "key"; id: number; key: number | null }
  | { kind: "order"; ids: number[] };

async function send(change: RoutineChange): Promise<void> {
  if (change.kind === "order") {
    await api.PUT("/api/routines/order", { body: { ids: change.ids } });
    return;
  }
  const params = { params: { path: { routine_id: change.id } } };
  if (change.kind === "delete") await api.DELETE("/api/routines/{routine_id}", params);
  else if (change.kind === "restore") await api.POST("/api/routines/{routine_id}/restore", params);
  else if (change.kind === "duplicate") await api.POST("/api/routines/{routine_id}/duplicate", params);
  else await api.PUT("/api/routines/{routine_id}/key", { ...params, body: { key: change.key } });
}

export function useChangeRoutines() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSettled: () => queries.invalidateQueries({ queryKey: ["routines"] }),
  });
}

/** What a new routine is made from; nothing gives an empty one. */
export interface NewRoutine {
  document?: RoutineDocument;
  starter?: string;
  cut_id?: number;
  name?: string;
}

export function useAddRoutine() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (made: NewRoutine) => answered(api.POST("/api/routines", { body: { name: "", ...made } })) as Promise<RoutineDetail>,
    onSettled: () => queries.invalidateQueries({ queryKey: ["routines"] }),
  });
}

export function useOpenRoutine() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file, file.name);
      return sendForm<RoutineDetail>("/api/routines/file", form);
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["routines"] }),
  });
}

export async function changeRoutine(routineId: number, document: RoutineDocument, changes: number): Promise<RoutineDetail> {
  return answered(api.PUT("/api/routines/{routine_id}", { params: { path: { routine_id: routineId } }, body: { document: { ...document }, changes } })) as Promise<RoutineDetail>;
}

export const routineFileUrl = (routineId: number) => `/api/routines/${routineId}/file`;

/** What each step does to a capture; the first is the capture as it is. */
export function useLooks(routineId: number, changes: number, captureId: number | null) {
  return useQuery({
    queryKey: ["looks", routineId, changes, captureId],
    enabled: captureId !== null,
    placeholderData: (before) => before,
    queryFn: () => answered(api.GET("/api/routines/{routine_id}/looks", { params: { path: { routine_id: routineId }, query: { capture: captureId ?? 0 } } })),
  });
}

export const lookUrl = (routineId: number, captureId: number, number: number, key: string) =>
  `/api/routines/${routineId}/looks/${number}?capture=${captureId}&key=${key}`;

export function useStartRun() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ routineId, ...over }: RunIn & { routineId: number }) =>
      answered(api.POST("/api/routines/{routine_id}/runs", { params: { path: { routine_id: routineId } }, body: { captures: [], addresses: [], values: {}, trial: false, ...over } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["runs"] }),
  });
}

export function useRuns(routineId?: number) {
  return useQuery({
    queryKey: ["runs", routineId ?? null],
    queryFn: () => answered(api.GET("/api/runs", { params: { query: routineId === undefined ? {} : { routine: routineId } } })),
    refetchInterval: ({ state }) => (state.data?.some(goesOn) ? PENDING_MS : false),
  });
}

/** Whether there is something to wait for. */
export const goesOn = (run: Run) => !run.finished && run.mode !== "pause";

export function useRun(runId: number) {
  return useQuery({
    queryKey: ["run", runId],
    queryFn: () => answered(api.GET("/api/runs/{run_id}", { params: { path: { run_id: runId } } })),
    refetchInterval: ({ state }) => (state.data && goesOn(state.data) ? PENDING_MS : false),
  });
}

/** The first items of a run, those that need a look before all others. */
export function useRunItems(run: Run | undefined, pages: number) {
  return useQuery({
    queryKey: ["run-items", run?.id, pages, run?.finished],
    enabled: run !== undefined,
    placeholderData: (before) => before,
    queryFn: async () => {
      const asked = Array.from({ length: pages }, (_, page) =>
        answered(api.GET("/api/runs/{run_id}/items", { params: { path: { run_id: run?.id ?? 0 }, query: { skip: page * ITEMS_AT_ONCE } } })),
      );
      const told = await Promise.all(asked);
      return { items: told.flatMap((row) => row.items), total: told[0]?.total ?? 0 };
    },
    refetchInterval: () => (run && goesOn(run) ? PENDING_MS : false),
  });
}

export function useRunOutputs(run: Run | undefined) {
  return useQuery({
    queryKey: ["run-outputs", run?.id, run?.finished],
    enabled: run?.finished === true && !run.trial,
    queryFn: () => answered(api.GET("/api/runs/{run_id}/outputs", { params: { path: { run_id: run?.id ?? 0 } } })),
  });
}

export type RunAction = { kind: "mode"; mode: Run["mode"] } | { kind: "retry" };

export function useRunAction(runId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (action: RunAction) => {
      const params = { params: { path: { run_id: runId } } };
      if (action.kind === "mode") await api.PUT("/api/runs/{run_id}/mode", { ...params, body: { mode: action.mode } });
      else await api.POST("/api/runs/{run_id}/retry", params);
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["run", runId] }),
  });
}

export function useRunAgain() {
  return useMutation({
    mutationFn: (runId: number) => answered(api.POST("/api/runs/{run_id}/again", { params: { path: { run_id: runId } } })),
  });
}

export const itemLookUrl = (itemId: number, look: string) => `/api/runs/items/${itemId}/look?key=${look}`;

export function useWatchedFolders() {
  return useQuery({ queryKey: ["watched-folders"], queryFn: () => answered(api.GET("/api/watched-folders")) });
}

export function useWatchFolder() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (folder: { name: string; routine_id: number }) => answered(api.POST("/api/watched-folders", { body: { values: {}, ...folder } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["watched-folders"] }),
  });
}

export function useLeaveFolder() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (folderId: number) => api.DELETE("/api/watched-folders/{folder_id}", { params: { path: { folder_id: folderId } } }),
    onSettled: () => queries.invalidateQueries({ queryKey: ["watched-folders"] }),
  });
}
