import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api } from "./client";
import type { Area, CaptureDetail, Cut, ReviewRow } from "./types";

/** A piece of a cut's page at 1:1, with what the cut hides and marks; `version` changes with the cut. */
export function pieceUrl(cutId: number, { x_px, y_px, width_px, height_px }: Area, version: number): string {
  const asked = new URLSearchParams({ x_px: `${x_px}`, y_px: `${y_px}`, width_px: `${width_px}`, height_px: `${height_px}`, v: `${version}` });
  return `/api/cuts/${cutId}/piece?${asked}`;
}

/** Say of some parts that they have been looked at; with none, let go of the review. */
export function useReview({ id: captureId }: CaptureDetail, { id: cutId }: Cut) {
  const queries = useQueryClient();
  const path = { cut_id: cutId };
  return useMutation({
    mutationFn: (rows: ReviewRow[]) => {
      const settled = rows.map(({ part, id }) => ({ part, id }));
      return rows.length > 0
        ? answered(api.POST("/api/cuts/{cut_id}/review", { params: { path }, body: { settled } }))
        : answered(api.DELETE("/api/cuts/{cut_id}/review", { params: { path } }));
    },
    onSuccess: ({ review }) => {
      // Only the review: the document here may be newer than the one that came back.
      queries.setQueryData<CaptureDetail>(["capture", captureId], (old) => old && { ...old, cuts: old.cuts.map((row) => (row.id === cutId ? { ...row, review } : row)) });
      void queries.invalidateQueries({ queryKey: ["outputs", cutId] });
    },
  });
}

/** By what the parts of a cut find their places on another capture. */
export type CarryBy = "blocks" | "px";

/** Carry a cut over to other captures, one after the other. */
export function useCarry(cutId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async ({ captureIds, by }: { captureIds: readonly number[]; by: CarryBy }) => {
      const made: Pick<Cut, "id" | "capture_id">[] = [];
      for (const capture_id of captureIds) made.push(await answered(api.POST("/api/cuts/{cut_id}/carry", { params: { path: { cut_id: cutId } }, body: { capture_id, by } })));
      return made;
    },
    // Some may have been made before one was refused.
    onSettled: () => queries.invalidateQueries({ queryKey: ["capture"] }),
  });
}

/** Which parts of a cut would find their places on another capture. */
export function useCarryLook(cutId: number, version: number, captureId: number, by: CarryBy) {
  return useQuery({
    queryKey: ["carry", cutId, version, captureId, by],
    queryFn: () => answered(api.GET("/api/cuts/{cut_id}/carry/{capture_id}", { params: { path: { cut_id: cutId, capture_id: captureId }, query: { by } } })),
  });
}

/** What a cut would show of another capture, small; `version` changes with the cut. */
export function carriedUrl(cutId: number, captureId: number, by: CarryBy, version: number): string {
  return `/api/cuts/${cutId}/carry/${captureId}/picture?${new URLSearchParams({ by, v: `${version}` })}`;
}
