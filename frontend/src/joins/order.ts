/** A list with the one at a place moved up or down by one. */
export function shifted<Row>(rows: readonly Row[], place: number, by: 1 | -1): Row[] {
  const moved = [...rows];
  const [row] = moved.splice(place, 1);
  if (row !== undefined) moved.splice(place + by, 0, row);
  return moved;
}
