import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api } from "./client";
import { asWhole } from "./handover";
import type { RightsIn, What } from "./types";

/** Notes of captures what is known of their rights. */
export function useSayRights(ids: readonly number[]) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (rights: RightsIn) => answered(api.POST("/api/captures/batch", { body: { ids: [...ids], action: "rights", label: "", rights } })),
    onSettled: () => {
      void queries.invalidateQueries({ queryKey: ["captures"] });
      void queries.invalidateQueries({ queryKey: ["capture"] });
      void queries.invalidateQueries({ queryKey: ["rights of"] });
    },
  });
}

/** What of a choice is not cleared, in one sentence; empty where all is. */
export function useNotCleared(what: What) {
  return useQuery({
    queryKey: ["rights of", what],
    queryFn: async () => (await answered(api.POST("/api/hand-over/rights", { body: asWhole(what) }))).sentence,
    retry: false,
  });
}
