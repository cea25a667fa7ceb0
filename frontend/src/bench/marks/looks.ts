import type { Mark, MarkKind } from "../../api/types";

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

/** What a new mark of a kind looks like: as the last one did. */
export function lastLook(kind: MarkKind): Look {
  return kept()[kind] ?? {};
}

export function rememberLook(mark: Mark, usual: UsualLooks): void {
  try {
    localStorage.setItem(KEPT, JSON.stringify({ ...kept(), [mark.kind]: lookOf(mark, usual) }));
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
