import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api, sendPicture } from "./client";
import type { Capture, TakeChanges, TakeIn } from "./types";

const PENDING_MS = 600;
const QUIET_MS = 15_000;

export function isPending(capture: Pick<Capture, "job">): boolean {
  return capture.job.state === "queued" || capture.job.state === "running";
}

/** The latest captures without those of sweeps, asked for again often while something is arriving. */
export function useLatest(limit: number) {
  return useQuery({
    queryKey: ["captures", "latest", limit],
    queryFn: async () => (await answered(api.GET("/api/captures", { params: { query: { limit, alone: true } } }))).captures,
    refetchInterval: ({ state }) => (state.data?.some(isPending) ? PENDING_MS : QUIET_MS),
  });
}

export function useCapture(captureId: number) {
  return useQuery({
    queryKey: ["capture", captureId],
    queryFn: () =>
      answered(api.GET("/api/captures/{capture_id}", { params: { path: { capture_id: captureId } } })),
    refetchInterval: (query) => (query.state.data && isPending(query.state.data) ? PENDING_MS : false),
  });
}

export interface PageOrder {
  address: string;
  screen: { width_px: number; height_px: number; scale: number; touch: boolean };
  /** Only what is said; the rest is as the person has set it. */
  settings: TakeChanges;
}

export function useTakePage() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (order: PageOrder) => answered(api.POST("/api/captures", { body: order as TakeIn })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["captures"] }),
  });
}

export function useAddPicture() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ file, name }: { file: Blob; name: string }) => sendPicture(file, name),
    onSettled: () => queries.invalidateQueries({ queryKey: ["captures"] }),
  });
}

type CaptureAction = "delete" | "restore" | "stop" | "stop-keeping" | "again";

/** What can be done to a capture as a whole, except renaming. */
export function useCaptureAction() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ captureId, action }: { captureId: number; action: CaptureAction }) => {
      const params = { params: { path: { capture_id: captureId } } };
      if (action === "delete") await api.DELETE("/api/captures/{capture_id}", params);
      else if (action === "restore") await api.POST("/api/captures/{capture_id}/restore", params);
      else if (action === "stop" || action === "stop-keeping")
        await api.POST("/api/captures/{capture_id}/stop", {
          params: { ...params.params, query: { keep: action === "stop-keeping" } },
        });
      else await api.POST("/api/captures/{capture_id}/again", params);
    },
    onSettled: async (_data, _error, { captureId }) => {
      await queries.invalidateQueries({ queryKey: ["captures"] });
      await queries.invalidateQueries({ queryKey: ["capture", captureId] });
    },
  });
}

export function useRenameCapture() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ captureId, name }: { captureId: number; name: string }) =>
      answered(
        api.PATCH("/api/captures/{capture_id}", { params: { path: { capture_id: captureId } }, body: { name } }),
      ),
    onSettled: async (_data, _error, { captureId }) => {
      await queries.invalidateQueries({ queryKey: ["captures"] });
      await queries.invalidateQueries({ queryKey: ["capture", captureId] });
    },
  });
}
