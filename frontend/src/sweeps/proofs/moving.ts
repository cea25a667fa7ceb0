/** A place among proofs: a row of all that are shown, and a column. */
export interface Place {
  row: number;
  column: number;
}

/** Where an arrow key leads; at the end of a row it goes on with the next one. */
export function moved(place: Place, key: string, rows: number, columns: number): Place {
  if (rows === 0 || columns === 0) return place;
  const at = place.row * columns + place.column;
  const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -columns, ArrowDown: columns }[key] ?? 0;
  const next = at + step;
  if (next < 0 || next >= rows * columns) return place;
  return { row: Math.floor(next / columns), column: next % columns };
}
