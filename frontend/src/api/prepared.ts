import type { Area, Clearing, CutDocument, Orientation } from "./types";
import { answered, api } from "./client";

/** A page as a cut turns and clears it, before anything is framed. */

const isSaid = (part: object | null | undefined) => part != null && Object.keys(part).length > 0;

/** How a cut turns the page, for requests about it; empty where it does not. */
export function orientationText({ orientation }: Pick<CutDocument, "orientation">): string {
  return isSaid(orientation) ? JSON.stringify({ orientation }) : "";
}

/** How a cut turns and clears the page; empty where it does neither. */
export function preparationText({ orientation, cleared }: Pick<CutDocument, "orientation" | "cleared">): string {
  const said: { orientation?: Orientation | null; cleared?: Clearing | null } = {};
  if (orientation && isSaid(orientation)) said.orientation = orientation;
  if (cleared?.colours?.length) said.cleared = cleared;
  return isSaid(said) ? JSON.stringify(said) : "";
}

/** Side of a square of such a page, in px at its own size. */
export const TILE_PX = 1_024;

export function tileUrl(capture: { id: number; picture_key: string }, place: { column: number; row: number }, shrink: 1 | 2 | 4, preparation: string): string {
  const asked = new URLSearchParams({ shrink: `${shrink}`, key: capture.picture_key, preparation });
  return `/api/captures/${capture.id}/tiles/${place.column}/${place.row}?${asked}`;
}

export function findLevel(captureId: number, preparation: string) {
  return answered(api.POST("/api/captures/{capture_id}/level", { params: { path: { capture_id: captureId } }, body: { preparation } }));
}

/** The stretches of a box that show nothing from edge to edge: of rows, or of columns, counted from the left. */
export function findBlank(captureId: number, box: Area, least_px: number, preparation: string, axis: "across" | "down" = "across") {
  return answered(api.POST("/api/captures/{capture_id}/blank", { params: { path: { capture_id: captureId } }, body: { box, least_px, preparation, axis } }));
}

export async function findColour(captureId: number, spot: { x_px: number; y_px: number }, preparation: string): Promise<string> {
  const found = await answered(api.POST("/api/captures/{capture_id}/colour", { params: { path: { capture_id: captureId } }, body: { ...spot, preparation } }));
  return found.colour;
}
