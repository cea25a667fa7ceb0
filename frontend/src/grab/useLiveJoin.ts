import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { answered, api } from "../api/client";
import type { Join } from "../api/types";

const POLL_MS = 400;
const QUIET_MS = 900;

async function stateOf(id: number): Promise<{ id: number; state: string }> {
  const { job } = await answered(api.GET("/api/captures/{capture_id}", { params: { path: { capture_id: id } } }));
  return { id, state: job.state };
}

/** The ids of those that are on the shelf with their picture, in the order given. */
export function useThere(ids: readonly number[]): readonly number[] {
  const states = useQuery({
    queryKey: ["grabbed", ...ids],
    queryFn: () => Promise.all(ids.map(stateOf)),
    enabled: ids.length > 0,
    placeholderData: keepPreviousData,
    refetchIntervalInBackground: true, // who scrolls another tab looks at that one
    refetchInterval: ({ state }) => (state.data?.every((row) => row.state === "done" || row.state === "failed") ? false : POLL_MS),
  });
  return (states.data ?? []).filter((row) => row.state === "done").map((row) => row.id);
}

/** Joins what was grabbed so far whenever nothing has come for a moment: who scrolls is told what is missing. */
export function useLiveJoin(there: readonly number[], isOn: boolean): Join | undefined {
  const said = there.join();
  const [settled, setSettled] = useState("");
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(said), QUIET_MS);
    return () => window.clearTimeout(timer);
  }, [said]);
  const ids = settled ? settled.split(",").map(Number) : [];
  return useQuery({
    queryKey: ["join so far", ...ids],
    queryFn: async ({ signal }) => {
      let join = await answered(api.POST("/api/joins", { body: { captures: [...ids], in_order: true } }));
      while (join.state === "finding" && !signal.aborted) {
        await new Promise((resolve) => window.setTimeout(resolve, POLL_MS));
        join = await answered(api.GET("/api/joins/{join_id}", { params: { path: { join_id: join.id } } }));
      }
      return join;
    },
    enabled: isOn && ids.length > 1,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  }).data;
}
