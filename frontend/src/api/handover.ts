import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { create } from "zustand";

import { answered, api } from "./client";
import type { HandOver, UploadPlaceIn, What } from "./types";

const POLL_MS = 500;

/** A way out with what is said about it; what is handed over is told apart. */
export type Order =
  | { way: "disk"; pattern: string }
  | { way: "archive" }
  | { way: "copied"; thing: "picture" | "file_address" | "path" | "page_address" | "html" | "markdown" }
  | { way: "folder"; folder: string; pattern: string }
  | { way: "pdf"; paper: string; margin_mm: number; caption: string; numbered: boolean; limit_bytes: number | null }
  | { way: "link"; title: string; caption: string; days: number | null; word: string }
  | { way: "mail"; to: string; subject: string; text: string; as_link: boolean; days: number | null; pattern: string }
  | { way: "upload"; outlet: number; pattern: string };

/** A choice with what it does not say. */
export const asWhole = (what: What) => ({ outputs: [], captures: [], only_kept: false, pictures: false, ...what });

/** Whether what was handed over is still on its way. */
export const isOnItsWay = (line: HandOver | undefined) => line?.job?.state === "queued" || line?.job?.state === "running";

/** What can be gone by on this server. */
export function useWaysOut() {
  return useQuery({ queryKey: ["ways out"], queryFn: () => answered(api.GET("/api/hand-over/ways")) });
}

/** What the first few files would be called by a pattern. */
export function useExampleNames(what: What, pattern: string) {
  return useQuery({
    queryKey: ["example names", what, pattern],
    queryFn: () => answered(api.POST("/api/hand-over/names", { body: { what: asWhole(what), pattern } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** Whether whoever hands over has said that what is not cleared leaves all the same. */
export const useLetGo = create(() => ({ letGo: false }));

/** Hands something over; the line of the log that it becomes. */
export function useHandOver() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ what, order }: { what: What; order: Order }) =>
      answered(api.POST("/api/hand-overs", { body: { order: { ...order, what: asWhole(what), uncleared: useLetGo.getState().letGo } } })),
    onSuccess: () => void client.invalidateQueries({ queryKey: ["log"] }),
  });
}

/** A line of the log, followed while it is on its way. */
export function useLine(first: HandOver | undefined) {
  const id = first?.id ?? 0;
  return useQuery({
    queryKey: ["hand over", id],
    queryFn: () => answered(api.GET("/api/hand-overs/{line_id}", { params: { path: { line_id: id } } })),
    ...(first && { initialData: first }),
    enabled: first !== undefined,
    refetchInterval: ({ state }) => (isOnItsWay(state.data) ? POLL_MS : false),
  });
}

/** Does something with a line: the same again, stop it, take its link back. */
export function useLineAction() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ lineId, action, uncleared = false }: { lineId: number; action: "again" | "stop" | "take-back"; uncleared?: boolean }) => {
      const path = { params: { path: { line_id: lineId } } };
      if (action === "again") return answered(api.POST("/api/hand-overs/{line_id}/again", { ...path, body: { uncleared } }));
      if (action === "stop") return answered(api.POST("/api/hand-overs/{line_id}/stop", path));
      return answered(api.POST("/api/hand-overs/{line_id}/take-back", path));
    },
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["hand over"] });
      void client.invalidateQueries({ queryKey: ["log"] });
    },
  });
}

/** What left of a capture, the latest first. */
export function useLog(captureId: number) {
  return useQuery({
    queryKey: ["log", captureId],
    queryFn: () => answered(api.GET("/api/captures/{capture_id}/log", { params: { path: { capture_id: captureId } } })),
    refetchInterval: ({ state }) => (state.data?.some(isOnItsWay) ? POLL_MS * 2 : false),
  });
}

/** Where the files of outlets go, for those that have an upload. */
export function useUploadPlaces() {
  return useQuery({ queryKey: ["upload places"], queryFn: () => answered(api.GET("/api/outlets/uploads")) });
}

/** Says where an outlet's files go; with null, that they go nowhere any more. */
export function useSetUpload(outletId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (place: UploadPlaceIn | null) => {
      const params = { path: { outlet_id: outletId } };
      if (place) await api.PUT("/api/outlets/{outlet_id}/upload", { params, body: place });
      else await api.DELETE("/api/outlets/{outlet_id}/upload", { params });
    },
    onSuccess: () => void client.invalidateQueries({ queryKey: ["upload places"] }),
  });
}

/** A sheet of a document as a small picture. */
export const sheetUrl = (line: HandOver, number: number) => `/api/hand-overs/${line.id}/sheets/${number}`;
