/** What of a mark or an area is typed where it is not dragged: its place, and its one colour. */

/** The colours in which marks begin. */
export const PLUM = "#6B3A5B";
export const INK = "#1D2B2A";

/** The usual colours of kinds that begin in another than plum: as the server has them. */
const USUAL: Record<string, string> = { text: INK, dim: INK, highlighter: "#F5C451" };

/** The field of a kind that is its colour, where that is not the field `colour`. */
const COLOURED: Record<string, string> = { box: "outline_colour", ellipse: "outline_colour", arrow: "filling", badge: "filling" };

export function colourField({ kind }: { kind: string }): string {
  return COLOURED[kind] ?? "colour";
}

export function colourOf(mark: { kind: string }): string {
  const colour = new Map<string, unknown>(Object.entries(mark)).get(colourField(mark));
  return typeof colour === "string" ? colour : (USUAL[mark.kind] ?? PLUM);
}

const PLACES: [string, string][] = [
  ["x_px", "x"],
  ["left_px", "x"],
  ["y_px", "y"],
  ["top_px", "y"],
  ["width_px", "w"],
  ["height_px", "h"],
  ["from_x_px", "from x"],
  ["from_y_px", "y"],
  ["to_x_px", "to x"],
  ["to_y_px", "y"],
];

/** The numbers that say where an area, a mark or a band lies, each with its field and what it is called. */
export function placeOf(what: object): [string, string, number][] {
  const fields = new Map<string, unknown>(Object.entries(what));
  return PLACES.flatMap(([field, words]): [string, string, number][] => {
    const value = fields.get(field);
    return typeof value === "number" ? [[field, words, value]] : [];
  });
}
