import type { Area, FoundPlace, HiddenArea, SoughtWords } from "../../../api/types";
import type { CutStore } from "../../cut/cutStore";
import { movedFrame } from "../../page/geometry/boxes";
import { newId } from "../markSteps";

/** What a person does to the hidden areas of a cut: each a step of its history. */

export function hideArea(store: CutStore, area: Area, how: HiddenArea["how"]): void {
  store.commit("area hidden", (cut) => {
    cut.hidden.push({ id: newId(), how, ...area });
  });
  // Not in hand: how the next one is hidden can be chosen without changing this one.
  store.select([]);
}

export function changeHidden(store: CutStore, id: string, change: Partial<HiddenArea>): void {
  store.commit("hidden otherwise", (cut) => {
    cut.hidden = cut.hidden.map((area) => (area.id === id ? { ...area, ...change } : area));
  });
}

/** Whether a hidden area is in hand. */
export function hiddenInHand(store: CutStore): boolean {
  const { document, selected } = store.getState();
  return document.hidden.some((area) => selected.includes(area.id));
}

export function nudgeHidden(store: CutStore, dx_px: number, dy_px: number): void {
  const { page, selected } = store.getState();
  store.commit(
    "hidden area moved",
    (cut) => {
      cut.hidden = cut.hidden.map((area) => (selected.includes(area.id) ? { ...area, ...movedFrame(area, dx_px, dy_px, page) } : area));
    },
    `nudge ${selected.join()}`,
  );
}

export const KINDS: Record<SoughtWords["kind"], string> = {
  words: "Words, names",
  email: "E-mail addresses",
  telephone: "Telephone numbers",
  amount: "Amounts",
};

/** What was hidden by words, as a person says it. */
export function soughtWords({ kind, words }: SoughtWords): string {
  return kind === "words" ? `“${(words ?? "").trim().split("\n").join("”, “")}”` : KINDS[kind];
}

/** Hide all places that say something: one step. They are known by what was sought. */
export function hideFound(store: CutStore, sought: SoughtWords, places: readonly FoundPlace[]): void {
  const room = MOST_HIDDEN - store.getState().document.hidden.length;
  const boxes = atMost(places.flatMap((place) => place.boxes), room);
  store.commit(`${KINDS[sought.kind].toLowerCase()} hidden`, (cut) => {
    cut.sought.push(sought);
    cut.hidden.push(...boxes.map((box, index) => ({ id: `${sought.id}-${index + 1}`, how: sought.how ?? "solid", ...box, found_by: sought.id })));
  });
  store.select([]);
}

/** Areas that a cut can hide. */
const MOST_HIDDEN = 2_000;

/** So many boxes; where there are more, the last covers all that are left. */
export function atMost(boxes: readonly Area[], most: number): Area[] {
  const rest = boxes.slice(Math.max(0, most - 1));
  if (rest.length < 2) return [...boxes];
  const [left, top] = [Math.min(...rest.map((box) => box.x_px)), Math.min(...rest.map((box) => box.y_px))];
  const [right, bottom] = [Math.max(...rest.map((box) => box.x_px + box.width_px)), Math.max(...rest.map((box) => box.y_px + box.height_px))];
  return [...boxes.slice(0, Math.max(0, most - 1)), { x_px: left, y_px: top, width_px: right - left, height_px: bottom - top }];
}

/** Show again what was hidden by words: one step. */
export function showFound(store: CutStore, id: string): void {
  store.commit("shown again", (cut) => {
    cut.sought = cut.sought.filter((row) => row.id !== id);
    cut.hidden = cut.hidden.filter((area) => area.found_by !== id);
  });
}
