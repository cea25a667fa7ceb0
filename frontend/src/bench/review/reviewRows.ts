import type { Area, Mark, ReviewRow } from "../../api/types";
import { KIND_WORDS } from "../marks/handling/geometry";
import type { PageSize } from "../page/geometry/boxes";

/** What is said and shown of the parts of a cut that was carried over. Pure. */

/** The next row after `at` that needs a look, going round; else the next one. */
export function nextRow(rows: readonly ReviewRow[], at: number): number {
  if (rows.length === 0) return 0;
  for (let step = 1; step <= rows.length; step += 1) {
    const place = (at + step) % rows.length;
    if (rows[place]?.doubt) return place;
  }
  return (at + 1) % rows.length;
}

export function waiting(rows: readonly ReviewRow[]): number {
  return rows.filter((row) => row.doubt).length;
}

/** Such as “Arrow”, “Hidden area”, “The frame”. */
export function nameOf(row: ReviewRow, marks: readonly Mark[]): string {
  switch (row.part) {
    case "frame":
      return "The frame";
    case "fold":
    case "fold_down":
      return "A fold";
    case "cleared":
      return "A cleared place";
    case "outline":
      return "The outline";
    case "hidden":
      return "A hidden area";
    case "mark": {
      const kind = marks.find((mark) => mark.id === row.id)?.kind ?? (row.kept as Mark | null)?.kind;
      return kind ? KIND_WORDS[kind] : "A mark";
    }
  }
}

/** What became of it, in words. */
export function stateWords({ state, doubt, part, kept }: ReviewRow): string {
  if (state === "lost") {
    if (part === "frame") return "What it showed was not found: all of the page is shown.";
    if (part === "fold") return "What it folded away was not found: nothing is folded there.";
    return kept || doubt ? "What it points at was not found. It is kept aside." : "What it points at was not found.";
  }
  const became = { same: "It is where it was.", moved: "It moved along with the page.", resized: "It changed with what it lies on." }[state];
  return doubt ? `${became} It could also belong elsewhere.` : became;
}

const AROUND_PX = 40;
const LEAST = { width_px: 320, height_px: 150 };
const MOST = { width_px: 900, height_px: 420 };

/** The piece of the page to be looked at for a box: with some room, not too small, not beside the page. */
export function pieceAround(box: Area, page: PageSize): Area {
  const span = (start: number, length: number, least: number, most: number, end: number) => {
    const wanted = Math.min(end, most, Math.max(least, length + 2 * AROUND_PX));
    const first = Math.min(Math.max(0, Math.round(start + length / 2 - wanted / 2)), Math.max(0, end - wanted));
    return [first, wanted] as const;
  };
  const [x_px, width_px] = span(box.x_px, box.width_px, LEAST.width_px, MOST.width_px, page.width_px);
  const [y_px, height_px] = span(box.y_px, box.height_px, LEAST.height_px, MOST.height_px, page.height_px);
  return { x_px, y_px, width_px, height_px };
}
