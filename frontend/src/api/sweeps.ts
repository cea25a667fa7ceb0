import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

import { answered, api, sendForm } from "./client";
import type { PageListing, Shot, Sweep, SweepIn, SweepOrder, SweepRows, TakeSettings } from "./types";

const GOING_MS = 1_000;
const QUIET_MS = 15_000;
export const ROWS_AT_ONCE = 50;

export type Kept =
  | "all"
  | "arrived"
  | "failed"
  | "not_whole"
  | "warnings"
  | "over_limit"
  | "blank"
  | "same"
  | "changed"
  | "unchanged"
  | "new"
  | "gone"
  | "keep"
  | "retake"
  | "dropped";
export type MarkWord = "keep" | "retake" | "drop" | "";
export type StopMode = "go_on" | "pause" | "stop";

export type ListSource = { text: string } | { file: File; column?: number } | { address: string };

/** What a list holds. Nothing is stored. */
export async function readList(source: ListSource): Promise<PageListing> {
  if ("text" in source) return answered(api.POST("/api/lists/text", { body: source }));
  if ("address" in source) return answered(api.POST("/api/lists/site", { body: source }));
  const form = new FormData();
  form.append("list_file", source.file, source.file.name);
  if (source.column !== undefined) form.append("column", String(source.column));
  return sendForm("/api/lists/file", form);
}

interface PatternTrial {
  pattern: string;
  pages: { address: string; title: string; line: number }[];
  screens: { width_px: number; height_px: number; scale: number; touch: boolean }[];
  slot_names: string[];
}

/** Names that a pattern would give, or why it gives none. */
export function useNames(trial: PatternTrial) {
  return useQuery({
    queryKey: ["names", trial],
    queryFn: () => answered(api.POST("/api/lists/names", { body: trial })),
    placeholderData: keepPreviousData,
    retry: false,
    enabled: trial.pages.length > 0,
  });
}

export function useStartSweep() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (order: SweepIn) => answered(api.POST("/api/sweeps", { body: order as SweepOrder })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["sweeps"] }),
  });
}

export function useSweeps() {
  return useQuery({
    queryKey: ["sweeps"],
    queryFn: () => answered(api.GET("/api/sweeps")),
    refetchInterval: (query) => (query.state.data?.some((sweep) => !sweep.finished_at) ? GOING_MS * 2 : QUIET_MS),
  });
}

export function useSweep(sweepId: number) {
  return useQuery({
    queryKey: ["sweep", sweepId],
    queryFn: () => answered(api.GET("/api/sweeps/{sweep_id}", { params: { path: { sweep_id: sweepId } } })),
    refetchInterval: (query) => {
      const sweep = query.state.data;
      if (!sweep) return false;
      const saving = sweep.saving?.job.state === "queued" || sweep.saving?.job.state === "running";
      return isGoing(sweep) || saving ? GOING_MS : QUIET_MS;
    },
  });
}

/** Whether its proofs may still change by themselves: pages are looked at after they were taken. */
export function isGoing(sweep: Sweep): boolean {
  return !sweep.finished_at || sweep.count.to_look > 0;
}

/** One stretch of a sweep's rows; asked again while the sweep goes on. */
export function sweepRowsQuery(sweepId: number, kept: Kept, words: string, stretch: number, going: boolean) {
  const query = { offset: stretch * ROWS_AT_ONCE, limit: ROWS_AT_ONCE, kept, words };
  return {
    queryKey: ["sweep", sweepId, "rows", kept, words, stretch],
    queryFn: () =>
      answered(api.GET("/api/sweeps/{sweep_id}/rows", { params: { path: { sweep_id: sweepId }, query } })),
    placeholderData: keepPreviousData,
    refetchInterval: going ? GOING_MS : (false as const),
  };
}

/** Asks for a sweep's rows once more when it ends: the last answer may be of before. The rows stay meanwhile. */
export function useRowsAtTheEnd(sweepId: number, going: boolean): void {
  const queries = useQueryClient();
  useEffect(() => {
    if (!going) return;
    return () => void queries.invalidateQueries({ queryKey: ["sweep", sweepId, "rows"] });
  }, [queries, sweepId, going]);
}

export type SweepAction =
  | { kind: "stop_mode"; stop_mode: StopMode }
  | { kind: "mark"; shots: Shot[]; word: MarkWord }
  | { kind: "retake"; shotIds: number[] | null; settings?: TakeSettings };

export function useSweepAction(sweepId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (action: SweepAction) => {
      const params = { path: { sweep_id: sweepId } };
      if (action.kind === "stop_mode") await api.POST("/api/sweeps/{sweep_id}/stop-mode", { params, body: { stop_mode: action.stop_mode } });
      else if (action.kind === "mark")
        await api.POST("/api/sweeps/{sweep_id}/mark", {
          params,
          body: { shot_ids: action.shots.map((shot) => shot.id), word: action.word, was: action.shots.map(wordOf) },
        });
      else
        await api.POST("/api/sweeps/{sweep_id}/retake", {
          params,
          body: { shot_ids: action.shotIds, settings: action.settings ?? null },
        });
    },
    onMutate: async (action) => {
      if (action.kind !== "mark") return;
      // Seen at once, so that whoever marks on knows what the next word replaces; an answer on its way is older.
      await queries.cancelQueries({ queryKey: ["sweep", sweepId, "rows"] });
      const ids = new Set(action.shots.map((shot) => shot.id));
      queries.setQueriesData<SweepRows>({ queryKey: ["sweep", sweepId, "rows"] }, (old) => old && marked(old, ids, action.word));
    },
    onSettled: () => queries.invalidateQueries({ queryKey: ["sweep", sweepId] }),
  });
}

/** The word a shot has. */
export function wordOf(shot: Shot): MarkWord {
  return shot.dropped ? "drop" : shot.mark;
}

function marked(rows: SweepRows, ids: ReadonlySet<number>, word: MarkWord): SweepRows {
  const mark = word === "drop" ? "" : word;
  const changed = (shot: Shot) => (ids.has(shot.id) ? { ...shot, mark, dropped: word === "drop" } : shot);
  return { ...rows, rows: rows.rows.map((row) => ({ ...row, shots: row.shots.map(changed) })) };
}

/** What changed on a page since the last time. */
export function useChange({ id: shotId, capture_id }: Shot, wanted: boolean) {
  return useQuery({
    // A shot that was taken again has another change.
    queryKey: ["change", shotId, capture_id],
    queryFn: () => answered(api.GET("/api/sweeps/shots/{shot_id}/change", { params: { path: { shot_id: shotId } } })),
    enabled: wanted,
  });
}

interface ScheduleOrder {
  cron: string;
  time_zone: string;
}

/** The next times of a schedule, or why there are none. */
export function useTimes(order: ScheduleOrder) {
  return useQuery({
    queryKey: ["times", order],
    queryFn: () => answered(api.POST("/api/schedules/times", { body: order })),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** Sets the times at which a sweep is taken again; null ends them. */
export function useSchedule(sweepId: number) {
  const queries = useQueryClient();
  const params = { path: { sweep_id: sweepId } };
  return useMutation({
    mutationFn: (order: ScheduleOrder | null) =>
      order
        ? answered(api.PUT("/api/sweeps/{sweep_id}/schedule", { params, body: order }))
        : answered(api.DELETE("/api/sweeps/{sweep_id}/schedule", { params })),
    onSuccess: (sweep) => queries.setQueryData(["sweep", sweepId], sweep),
  });
}

/** Saves a sweep into a folder of the server. */
export function useSaveSweep(sweepId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: { folder: string; only_kept: boolean }) =>
      answered(api.POST("/api/sweeps/{sweep_id}/folder", { params: { path: { sweep_id: sweepId } }, body })),
    onSuccess: (sweep) => queries.setQueryData(["sweep", sweepId], sweep),
  });
}

/** The same pages once more, as a new sweep. */
export function useSweepAgain() {
  return useMutation({
    mutationFn: (sweepId: number) =>
      answered(api.POST("/api/sweeps/{sweep_id}/again", { params: { path: { sweep_id: sweepId } } })),
  });
}

/** Delete a sweep that has ended. */
export function useDeleteSweep() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (sweepId: number) => api.DELETE("/api/sweeps/{sweep_id}", { params: { path: { sweep_id: sweepId } } }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ["sweeps"] });
      await queries.invalidateQueries({ queryKey: ["captures"] });
    },
  });
}

export function sweepZipUrl(sweepId: number, onlyKept: boolean): string {
  return `/api/sweeps/${sweepId}/zip${onlyKept ? "?only_kept=true" : ""}`;
}
