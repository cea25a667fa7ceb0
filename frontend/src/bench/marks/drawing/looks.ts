import type { Mark, MarkKind } from "../../../api/types";

/** How marks look. Each kind remembers how it looked last, in this browser. */

export type Look = Record<string, unknown>;
export type UsualLooks = Record<string, Look>;

const KEPT = "tallpage-looks";
/** What belongs to a single mark and not to its kind's look. */
const OWN = new Set(["kind", "id", "style", "locked", "text", "caption", "spot_x_px", "spot_y_px", "angle_deg", "width_px", "sign", "picture", "bend_px"]);

/** The fields of a mark that are its look. */
export function lookOf(mark: Mark, usual: UsualLooks): Look {
  const names = Object.keys(usual[mark.kind] ?? {}).filter((name) => !OWN.has(name));
  return Object.fromEntries(names.flatMap((name) => (name in mark ? [[name, mark[name as keyof Mark]]] : [])));
}

/** What is as large on any screen: on one of twice the density it has twice the px. */
const LENGTHS = new Set(["thickness_px", "outline_px", "size_px", "corner_px"]);

/** What the last mark of a kind looked like, else the look to begin with, on a page of a density. */
export function lastLook(kind: MarkKind, first: Look, scale: number): Look {
  return scaled({ ...first, ...kept()[kind] }, scale);
}

/** The lengths of a look. */
export function lengthsOf(look: Look): Look {
  return Object.fromEntries(Object.entries(look).filter(([name]) => LENGTHS.has(name)));
}

function scaled(look: Look, times: number): Look {
  return Object.fromEntries(Object.entries(look).map(([name, value]) => [name, LENGTHS.has(name) && typeof value === "number" ? Math.round(value * times * 10) / 10 : value]));
}

export function rememberLook(mark: Mark, usual: UsualLooks, scale: number): void {
  try {
    localStorage.setItem(KEPT, JSON.stringify({ ...kept(), [mark.kind]: scaled(lookOf(mark, usual), 1 / scale) }));
  } catch {
    // A browser that keeps nothing begins with the usual look each time.
  }
}

function kept(): Partial<Record<MarkKind, Look>> {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? "{}") as Partial<Record<MarkKind, Look>>;
  } catch {
    return {};
  }
}

/** The value of a field: the mark's own, its style's, or the usual one. */
export function shownValue(mark: Mark, field: string, styles: Record<string, Look>, usual: UsualLooks): unknown {
  if (field in mark) return mark[field as keyof Mark];
  const style = mark.style ? styles[mark.style] : undefined;
  if (style && field in style) return style[field];
  return usual[mark.kind]?.[field];
}
