const MAX_NAME_CHARS = 80;

/** Ids of a list in which one entry went up (-1) or down (1). */
export function moved(rows: { id: number }[], index: number, step: 1 | -1): number[] {
  const ids = rows.map((row) => row.id);
  const [id] = ids.splice(index, 1);
  if (id !== undefined) ids.splice(Math.max(0, index + step), 0, id);
  return ids;
}

/** A name for a copy, no longer than a name may be. */
export function copyName(name: string): string {
  return `${name.slice(0, MAX_NAME_CHARS - " copy".length)} copy`;
}
