import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";

import { setOwn } from "../app/own";
import { answered, api, sendForm } from "./client";
import type { Settings } from "./types";

const KEY = ["settings"];

/** Every setting; what this browser shows follows it. */
export function useSettings() {
  const told = useQuery({ queryKey: KEY, queryFn: () => answered(api.GET("/api/settings")) as Promise<Settings> });
  useEffect(() => {
    if (told.data) setOwn(Object.fromEntries(told.data.settings.filter((row) => row.origin !== "usual").map((row) => [row.name, row.value])));
  }, [told.data]);
  return told;
}

/** Changes some; null sets one back to what is usual. */
export function useChangeSettings() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (values: Record<string, unknown>) => answered(api.POST("/api/settings", { body: { values } })) as Promise<Settings>,
    onSuccess: (settings) => queries.setQueryData(KEY, settings),
  });
}

export function useOpenSettings() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file, file.name);
      return sendForm<Settings>("/api/settings/file", form);
    },
    onSuccess: async (settings) => {
      queries.setQueryData(KEY, settings);
      await queries.invalidateQueries({ queryKey: ["own-keys"] });
    },
  });
}
