import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { answered, api, Problem } from "./client";
import type { Choice, OutletFacts, OutletsFile, Output, Rules, SlotIn } from "./types";

const PENDING_MS = 400;
/** While nothing is known of a file yet. */
const EAGER_MS = 150;

export function isFitting(output: Output): boolean {
  return output.job.state === "queued" || output.job.state === "running";
}

export function useOutlets() {
  return useQuery({ queryKey: ["outlets"], queryFn: () => answered(api.GET("/api/outlets")) });
}

export type OutletChange =
  | { kind: "add-outlet"; name: string }
  | { kind: "rename-outlet"; outletId: number; name: string }
  | { kind: "delete-outlet"; outletId: number }
  | { kind: "add-slot"; outletId: number; slot: SlotIn }
  | { kind: "change-slot"; slotId: number; slot: SlotIn }
  | { kind: "delete-slot"; slotId: number }
  | { kind: "copy-outlet"; outletId: number }
  | { kind: "order-outlets"; ids: number[] }
  | { kind: "order-slots"; outletId: number; ids: number[] };

async function sendOutletChange(change: OutletChange): Promise<void> {
  switch (change.kind) {
    case "add-outlet":
      await api.POST("/api/outlets", { body: { name: change.name } });
      return;
    case "rename-outlet":
      await api.PATCH("/api/outlets/{outlet_id}", {
        params: { path: { outlet_id: change.outletId } },
        body: { name: change.name },
      });
      return;
    case "delete-outlet":
      await api.DELETE("/api/outlets/{outlet_id}", { params: { path: { outlet_id: change.outletId } } });
      return;
    case "add-slot":
      await api.POST("/api/outlets/{outlet_id}/slots", {
        params: { path: { outlet_id: change.outletId } },
        body: change.slot,
      });
      return;
    case "change-slot":
      await api.PUT("/api/slots/{slot_id}", { params: { path: { slot_id: change.slotId } }, body: change.slot });
      return;
    case "delete-slot":
      await api.DELETE("/api/slots/{slot_id}", { params: { path: { slot_id: change.slotId } } });
      return;
    case "copy-outlet":
      await api.POST("/api/outlets/{outlet_id}/copy", { params: { path: { outlet_id: change.outletId } } });
      return;
    case "order-outlets":
      await api.PUT("/api/outlets/order", { body: { ids: change.ids } });
      return;
    case "order-slots":
      await api.PUT("/api/outlets/{outlet_id}/slots/order", {
        params: { path: { outlet_id: change.outletId } },
        body: { ids: change.ids },
      });
  }
}

export function useChangeOutlets() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: sendOutletChange,
    onSettled: () => queries.invalidateQueries({ queryKey: ["outlets"] }),
  });
}

/** Says which facts go along with an outlet's files. */
export function useSetFacts(outletId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (facts: OutletFacts) => api.PUT("/api/outlets/{outlet_id}/facts", { params: { path: { outlet_id: outletId } }, body: facts }),
    onSettled: () => queries.invalidateQueries({ queryKey: ["outlets"] }),
  });
}

/** Take outlets in from the text of a file; tells which were new and which were changed. */
export function useImportOutlets() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (text: string) => answered(api.POST("/api/outlets/file", { body: readFile(text) })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["outlets"] }),
  });
}

function readFile(text: string): OutletsFile {
  try {
    return JSON.parse(text) as OutletsFile; // what is in it is checked where it is taken in
  } catch {
    throw new Problem(0, "file_malformed", "The file is not JSON.", "Import a file that was saved from this screen.");
  }
}

export const OUTLETS_FILE_URL = "/api/outlets/file";

/** The ledger of a cut, asked again often while a file is being made. */
export function useOutputs(cutId: number) {
  return useQuery({
    queryKey: ["outputs", cutId],
    queryFn: () => answered(api.GET("/api/cuts/{cut_id}/outputs", { params: { path: { cut_id: cutId } } })),
    refetchInterval: (query) => {
      const fitting = query.state.data?.filter(isFitting) ?? [];
      if (fitting.length === 0) return false;
      return fitting.some((row) => row.job.state === "running" && !row.job.told) ? EAGER_MS : PENDING_MS;
    },
  });
}

export function useAddOutput(cutId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (body: { slot_id: number } | { rules: Rules }) =>
      answered(api.POST("/api/cuts/{cut_id}/outputs", { params: { path: { cut_id: cutId } }, body })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["outputs", cutId] }),
  });
}

export function useFitAgain(cutId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ outputId, choice, followSlot = false }: { outputId: number; choice: Choice | null; followSlot?: boolean }) =>
      answered(
        api.POST("/api/outputs/{output_id}/fit", {
          params: { path: { output_id: outputId } },
          body: { choice, follow_slot: followSlot },
        }),
      ),
    onSettled: () => queries.invalidateQueries({ queryKey: ["outputs", cutId] }),
  });
}

/** Divide an output otherwise: into so many leaves, at breaks (px of the frame), or as it has to be. */
export function useDivide(cutId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ outputId, ...body }: { outputId: number; leaf_count: number | null; breaks: number[] }) =>
      answered(api.POST("/api/outputs/{output_id}/leaves", { params: { path: { output_id: outputId } }, body })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["outputs", cutId] }),
  });
}

/** Have marks drawn larger in a file where their letters could not be read; or as they are. */
export function useKeepLegible(cutId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: ({ outputId, legible }: { outputId: number; legible: boolean }) =>
      answered(api.PUT("/api/outputs/{output_id}/legible", { params: { path: { output_id: outputId } }, body: { legible } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["outputs", cutId] }),
  });
}

/** Ask for files of a changed frame. The server knows which; newer work replaces older. */
export async function fitStale(cutId: number): Promise<void> {
  await api.POST("/api/cuts/{cut_id}/outputs/fit", { params: { path: { cut_id: cutId } } });
}

/** End a search; the best file so far stays. */
export function useStopOutput(cutId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (outputId: number) => answered(api.POST("/api/outputs/{output_id}/stop", { params: { path: { output_id: outputId } } })),
    onSettled: () => queries.invalidateQueries({ queryKey: ["outputs", cutId] }),
  });
}

/** Say which row is looked at: its file comes before others that wait. */
export function useTakeInHand() {
  return useMutation({
    mutationFn: (outputId: number) => api.POST("/api/outputs/{output_id}/hand", { params: { path: { output_id: outputId } } }),
  });
}

export function useDeleteOutput(cutId: number) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (outputId: number) =>
      api.DELETE("/api/outputs/{output_id}", { params: { path: { output_id: outputId } } }),
    onSettled: () => queries.invalidateQueries({ queryKey: ["outputs", cutId] }),
  });
}
