import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api, sendForm, sendPicture } from "./client";
import type { Area, Capture, Cut, CutDocument, CutDocumentOnWire, Side, TakeSettings } from "./types";

const PENDING_MS = 600;
const QUIET_MS = 15_000;

export function isPending(capture: Pick<Capture, "job">): boolean {
  return capture.job.state === "queued" || capture.job.state === "running";
}

/**
 * The shelf, newest first, asked again often while something is arriving; what holds `words`, if any;
 * with `alone` without what was taken with a whole list of pages.
 */
export function useShelf({ words = "", alone = false }) {
  return useInfiniteQuery({
    queryKey: ["captures", words, alone],
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam }) =>
      answered(api.GET("/api/captures", { params: { query: { limit: 60, before: pageParam, words, alone } } })),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.next_before,
    refetchInterval: (query) => {
      const captures = query.state.data?.pages.flatMap((page) => page.captures) ?? [];
      return captures.some(isPending) ? PENDING_MS : QUIET_MS;
    },
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

/** The blocks of a taken page. A capture never changes, so its map is asked for once. */
/** The blocks of a page, as a cut turns it. */
export function usePageMap(captureId: number, preparation = "") {
  return useQuery({
    queryKey: ["map", captureId, preparation],
    queryFn: () => answered(api.GET("/api/captures/{capture_id}/map", { params: { path: { capture_id: captureId }, query: { preparation } } })),
    staleTime: Infinity,
  });
}

export interface PageOrder {
  address: string;
  screen: { width_px: number; height_px: number; scale: number; touch: boolean };
  settings: Required<TakeSettings>;
}

export function useTakePage() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (order: PageOrder) => answered(api.POST("/api/captures", { body: order })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["captures"] }),
  });
}

/** Take a page once more as it was taken before, beside the earlier capture. */
export function useRetake() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (captureId: number) =>
      answered(api.POST("/api/captures/{capture_id}/retake", { params: { path: { capture_id: captureId } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["captures"] }),
  });
}

/** Take what lies below a capture that was cut off. */
export function useTakeFurther() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (captureId: number) =>
      answered(api.POST("/api/captures/{capture_id}/further", { params: { path: { capture_id: captureId } } })),
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

export function useStartCut(captureId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () =>
      answered(api.POST("/api/captures/{capture_id}/cuts", { params: { path: { capture_id: captureId } } })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["capture", captureId] }),
  });
}

/** Another cut, as a file says. */
export function useOpenCut(captureId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("cut", file);
      return sendForm<Cut>(`/api/captures/${captureId}/cuts/file`, form);
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["capture", captureId] }),
  });
}

/** A box without the plain edges of what it shows. */
export function trimmedBox(captureId: number, box: Area, sides: Side[], preparation: string): Promise<Area> {
  return answered(api.POST("/api/captures/{capture_id}/trim", { params: { path: { capture_id: captureId } }, body: { box, sides, preparation } }));
}

export type CutAction =
  | { kind: "delete" | "restore" | "duplicate"; cutId: number }
  | { kind: "rename"; cutId: number; name: string }
  | { kind: "order"; cutIds: number[] };

/** What is done to the cuts of a page besides changing what they show; gives the cut that came of it. */
export function useCutAction(captureId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (action: CutAction): Promise<Cut | undefined> => {
      if (action.kind === "order") {
        await api.PUT("/api/captures/{capture_id}/cuts/order", { params: { path: { capture_id: captureId } }, body: { cut_ids: action.cutIds } });
        return undefined;
      }
      const params = { path: { cut_id: action.cutId } };
      switch (action.kind) {
        case "delete":
          await api.DELETE("/api/cuts/{cut_id}", { params });
          return undefined;
        case "restore":
          return answered(api.POST("/api/cuts/{cut_id}/restore", { params }));
        case "duplicate":
          return answered(api.POST("/api/cuts/{cut_id}/duplicate", { params }));
        case "rename":
          return answered(api.PUT("/api/cuts/{cut_id}/name", { params, body: { name: action.name } }));
      }
    },
    onSuccess: () => queries.invalidateQueries({ queryKey: ["capture", captureId] }),
  });
}

/** Write a frame; refused when another tab wrote a newer one. */
export function saveCut(cutId: number, version: number, document: CutDocument): Promise<Cut> {
  return answered(
    api.PATCH("/api/cuts/{cut_id}", { params: { path: { cut_id: cutId } }, body: { version, document: document as CutDocumentOnWire } }),
  );
}

/** Saves a cut from a window that is being left: the request is sent, and nobody hears the answer. */
export function saveCutLeaving(cutId: number, version: number, document: CutDocument): void {
  const options = { params: { path: { cut_id: cutId } }, body: { version, document: document as CutDocumentOnWire }, keepalive: true };
  void api.PATCH("/api/cuts/{cut_id}", options).catch(() => undefined);
}

export function fetchCut(cutId: number): Promise<Cut> {
  return answered(api.GET("/api/cuts/{cut_id}", { params: { path: { cut_id: cutId } } }));
}
