import { useMutation, useQueryClient } from "@tanstack/react-query";

import { answered, api } from "./client";

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

/** Take many pages once more; what is no page is left out. */
export function useRetakeMany() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (ids: number[]) => answered(api.POST("/api/captures/retake", { body: { ids } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["captures"] }),
  });
}
