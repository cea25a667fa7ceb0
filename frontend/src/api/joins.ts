import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api } from "./client";
import type { Join } from "./types";

const POLL_MS = 400;

const keyOf = (joinId: number) => ["join", joinId];

/** Captures put together; followed while it is looked where they lie. */
export function useJoin(joinId: number) {
  return useQuery({
    queryKey: keyOf(joinId),
    queryFn: () => answered(api.GET("/api/joins/{join_id}", { params: { path: { join_id: joinId } } })),
    refetchInterval: ({ state }) => (state.data?.state === "finding" ? POLL_MS : false),
    retry: false,
  });
}

/** Puts captures together; in the order they are named, or in whichever shows the page. */
export function useJoinCaptures() {
  return useMutation({
    mutationFn: (body: { captures: number[]; in_order: boolean }) => answered(api.POST("/api/joins", { body })),
  });
}

/** Moves a seam to another row. */
export function useMoveSeam(joinId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: { number: number; at_px: number }) => answered(api.POST("/api/joins/{join_id}/seam", { params: { path: { join_id: joinId } }, body })),
    onSuccess: (join: Join) => queries.setQueryData(keyOf(joinId), join),
  });
}

/** Keeps the whole as a capture. */
export function useKeepJoin(joinId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: () => answered(api.POST("/api/joins/{join_id}/keep", { params: { path: { join_id: joinId } } })),
    onSuccess: (join: Join) => {
      queries.setQueryData(keyOf(joinId), join);
      void queries.invalidateQueries({ queryKey: ["captures"] });
    },
  });
}
