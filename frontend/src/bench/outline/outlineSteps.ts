import type { FreeOutline } from "../../api/types";
import { useNotices } from "../../app/notices";
import type { CutStore } from "../cut/cutStore";
import { tidy } from "../marks/handling/geometry";
import { bandsOf, withFolds } from "../page/geometry/folds";
import { boundsOf, type Corner, isPossible } from "./outlines";

/** What a person does to the free outline of a cut: each a step of its history. */

/** Keep what is inside a shape; the frame goes around it. Whether that is possible; if not, it is said why. */
export function drawOutline(store: CutStore, points: readonly Corner[]): boolean {
  const bounds = boundsOf(points, store.getState().page);
  if (!isPossible(points) || !bounds) return refused();
  store.commit("outline drawn", (cut) => {
    cut.outline = { ...cut.outline, points: points.map(tidied) };
    cut.frame = withFolds(bounds, cut.frame.folds, bandsOf(cut.frame, "down"));
  });
  return true;
}

/** Other corners on their way. */
export function dragCorners(store: CutStore, points: readonly Corner[]): void {
  store.preview((cut) => {
    if (cut.outline) cut.outline.points = [...points];
  });
}

/** Other corners of an outline; the frame stays. Whether that is possible; if not, it is said why. */
export function setCorners(store: CutStore, points: readonly Corner[], words: string, gesture?: string): boolean {
  store.cancel();
  if (!isPossible(points)) return refused();
  store.commit(
    words,
    (cut) => {
      if (cut.outline) cut.outline.points = points.map(tidied);
    },
    gesture,
  );
  return true;
}

export function changeOutline(store: CutStore, change: Partial<Omit<FreeOutline, "points">>, words: string): void {
  store.commit(words, (cut) => {
    if (cut.outline) cut.outline = { ...cut.outline, ...change };
  });
}

export function removeOutline(store: CutStore): void {
  store.commit("outline removed", (cut) => {
    delete cut.outline;
  });
  store.setTool({ kind: "frame" });
}

function refused(): false {
  useNotices.getState().show({ tone: "error", text: "The outline crosses itself, or has nothing inside.", hint: "Draw it so that its lines do not meet." });
  return false;
}

const tidied = ([x, y]: Corner): Corner => [tidy(x), tidy(y)];
