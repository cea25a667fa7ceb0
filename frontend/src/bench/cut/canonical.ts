/** A value as text that is the same for equal values, in whatever order their fields stand. */
export function canonical(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonical).join()}]`;
  if (value !== null && typeof value === "object") {
    const fields = Object.entries(value)
      .filter(([, field]) => field !== undefined)
      .sort(([first], [second]) => (first < second ? -1 : 1));
    return `{${fields.map(([name, field]) => `${JSON.stringify(name)}:${canonical(field)}`).join()}}`;
  }
  return JSON.stringify(value);
}
