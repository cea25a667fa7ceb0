import { useMutation, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";

import { type OwnKeys, useOwnKeys } from "../app/actions/ownKeys";
import { answered, api } from "./client";

/** The keys that were chosen, as the server has them; what this browser knew before gives way. */
export function useFetchedKeys(): OwnKeys {
  const { own, set } = useOwnKeys();
  const told = useQuery({ queryKey: ["own-keys"], queryFn: () => answered(api.GET("/api/me/keys")) });
  const keys = told.data?.keys;
  useEffect(() => {
    if (keys) set(keys);
  }, [keys, set]);
  return own;
}

export function useChooseKeys() {
  const set = useOwnKeys((state) => state.set);
  return useMutation({
    mutationFn: (own: OwnKeys) => answered(api.POST("/api/me/keys", { body: { keys: Object.fromEntries(Object.entries(own).map(([id, keys]) => [id, [...keys]])) } })),
    onSuccess: ({ keys }) => set(keys),
  });
}
