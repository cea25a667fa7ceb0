import { keepPreviousData, useQuery } from "@tanstack/react-query";

import type { UsualLooks } from "../bench/marks/drawing/looks";
import { answered, api, sendForm } from "./client";
import type { Area, CutDocument, CutDocumentOnWire, DrawnMark, HiddenArea, Mark, MarkStyle, SoughtWords } from "./types";

/** What marks look like on a page of a size, as they will in the files. */
export function drawMarks(
  size: { width_px: number; height_px: number },
  asked: { marks: Mark[]; labels: Record<number, string>; styles: CutDocument["styles"] },
): Promise<DrawnMark[]> {
  const marks = asked.marks as CutDocumentOnWire["marks"];
  return answered(api.POST("/api/marks/drawn", { body: { ...size, marks, labels: asked.labels, styles: asked.styles } }));
}

/** How each kind of mark looks where it does not say so itself. */
export function fetchUsualLooks(): Promise<UsualLooks> {
  return answered(api.GET("/api/marks/usual"));
}

/** Every place of a page that says what is sought. */
export function useFound(captureId: number, sought: { kind: SoughtWords["kind"]; words: string }, preparation: string) {
  return useQuery({
    queryKey: ["found", captureId, sought, preparation],
    queryFn: () => answered(api.POST("/api/captures/{capture_id}/found", { params: { path: { capture_id: captureId } }, body: { ...sought, preparation } })),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
}

/** The signs that stickers can show, as path data in a square of 24 units. */
export function useSigns(): Record<string, string> {
  return useQuery({ queryKey: ["signs"], queryFn: () => answered(api.GET("/api/signs")), staleTime: Infinity }).data ?? NO_SIGNS;
}

const NO_SIGNS: Record<string, string> = {};

export async function keepSticker(file: File): Promise<string> {
  const body = new FormData();
  body.append("picture", file);
  return (await sendForm<{ name: string }>("/api/stickers", body)).name;
}

/** Looks with a name, in the order of their names. */
export function fetchStyles(): Promise<MarkStyle[]> {
  return answered(api.GET("/api/marks/styles"));
}

export function keepStyle(style: MarkStyle): Promise<MarkStyle[]> {
  return answered(api.PUT("/api/marks/styles", { body: style }));
}

export function forgetStyle(name: string): Promise<MarkStyle[]> {
  return answered(api.DELETE("/api/marks/styles", { params: { query: { name } } }));
}

/** How coarse squares and blur have to be in a box; unknown until it has been found out. */
export function useCoarseness(captureId: number, { x_px, y_px, width_px, height_px }: Area, preparation: string): number | undefined {
  const query = { x_px, y_px, width_px, height_px, preparation };
  return useQuery({
    queryKey: ["coarseness", captureId, query],
    queryFn: () => answered(api.GET("/api/captures/{capture_id}/coarseness", { params: { path: { capture_id: captureId }, query } })),
    staleTime: Infinity,
  }).data?.asked_px;
}

/** Pictures of hidden areas are kept by the browser; those of a rule that has changed are not asked for again. */
const COARSENESS_RULE = "2";

/** A hidden area as the files show it. */
export function hiddenUrl(captureId: number, { how, x_px, y_px, width_px, height_px, strength_px }: HiddenArea, preparation: string): string {
  const asked = new URLSearchParams({ how, x_px: `${x_px}`, y_px: `${y_px}`, width_px: `${width_px}`, height_px: `${height_px}`, rule: COARSENESS_RULE });
  if (preparation) asked.set("preparation", preparation);
  if (strength_px != null) asked.set("strength_px", `${strength_px}`);
  return `/api/captures/${captureId}/hidden?${asked}`;
}
