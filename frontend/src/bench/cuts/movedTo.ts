/** A list with one of its rows at another place. */
export function movedTo<Row>(rows: readonly Row[], from: number, to: number): Row[] {
  const row = rows[from];
  return row === undefined ? [...rows] : rows.toSpliced(from, 1).toSpliced(to, 0, row);
}
