import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api, sendForm } from "./client";
import type { Area, Cut, CutDocument, CutDocumentOnWire, Side } from "./types";

/** Cuts of a taken page, and the blocks of it. */

/** The blocks of a page, as a cut turns it. A capture never changes, so its map is asked for once. */
export function usePageMap(captureId: number, preparation = "") {
  return useQuery({
    queryKey: ["map", captureId, preparation],
    queryFn: () => answered(api.GET("/api/captures/{capture_id}/map", { params: { path: { capture_id: captureId }, query: { preparation } } })),
    staleTime: Infinity,
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
