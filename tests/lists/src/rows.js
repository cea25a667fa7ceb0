// The rows of every list: what each says, how high it is, and a mark that a test finds in the picture.
export const COUNT = Number(new URLSearchParams(location.search).get("rows") ?? 300);
const CELL_PX = 8;
const BITS = 12;

export const words = (row) => `Sailing ${row + 1} of the Skerrin Sound, pier ${(row * 7) % 11}`;
/** Heights that differ, as those of real rows do. */
export const heightPx = (row) => 36 + ((row * 7) % 5) * 12;
export const EQUAL_PX = 40;

/** Magenta, twelve bits from the highest down (black is 1), cyan. */
export function mark(row) {
  const bits = Array.from({ length: BITS }, (_, place) => ((row + 1) >> (BITS - 1 - place)) & 1);
  const cells = ["#f0f", ...bits.map((bit) => (bit ? "#000" : "#fff")), "#0ff"];
  const stops = cells.map((colour, place) => `${colour} ${place * CELL_PX}px ${(place + 1) * CELL_PX}px`);
  return `background:linear-gradient(90deg,${stops.join(",")});width:${cells.length * CELL_PX}px;height:${CELL_PX}px`;
}

export const rowHtml = (row, height = heightPx(row)) =>
  `<div style="height:${height}px;box-sizing:border-box;padding:4px 8px;overflow:hidden;background:hsl(${(row * 37) % 360} 30% 92%)">` +
  `<div style="${mark(row)}"></div><span style="line-height:20px">${words(row)}</span></div>`;
