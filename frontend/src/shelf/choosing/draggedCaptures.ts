import type { DragEvent } from "react";

const KIND = "application/x-captures";

/** Captures that are dragged within the shelf, by their numbers. */
export const draggedCaptures = {
  begin(event: DragEvent, ids: readonly number[]): void {
    event.dataTransfer.setData(KIND, JSON.stringify(ids));
    event.dataTransfer.effectAllowed = "move";
  },
  carriedBy: (event: DragEvent): boolean => event.dataTransfer.types.includes(KIND),
  read(event: DragEvent): number[] {
    const text = event.dataTransfer.getData(KIND);
    return text ? (JSON.parse(text) as number[]) : [];
  },
};
