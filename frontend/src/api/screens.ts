import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api } from "./client";
import type { NamedScreenIn } from "./types";

const screensQuery = {
  queryKey: ["screens"],
  queryFn: () => answered(api.GET("/api/screens")),
  staleTime: Infinity,
};

export function useScreens() {
  return useQuery(screensQuery);
}

/** Asks for the screens when they are needed: whoever types faster than they arrive loses nothing. */
export function useFetchScreens() {
  const queries = useQueryClient();
  return () => queries.query({ ...screensQuery, staleTime: "static" });
}

export function useAddScreen() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (screen: NamedScreenIn) => answered(api.POST("/api/screens", { body: screen })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["screens"] }),
  });
}

export function useRemoveScreen() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (name: string) => api.DELETE("/api/screens", { params: { query: { name } } }),
    onSettled: () => queries.invalidateQueries(), // settings may have chosen it too
  });
}
