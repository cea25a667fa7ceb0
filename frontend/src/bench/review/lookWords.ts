const NAMES: Record<string, [one: string, many: string]> = {
  frame: ["frame", "frame"],
  fold: ["fold", "folds"],
  fold_down: ["fold", "folds"],
  outline: ["outline", "outline"],
  cleared: ["cleared place", "cleared places"],
  hidden: ["hidden area", "hidden areas"],
  mark: ["mark", "marks"],
};

interface Look {
  parts: number;
  doubted: readonly string[];
  lost: readonly string[];
}

/** What of a cut would have no sure place on another capture, in words. */
export function lookWords(look: Look | undefined): { text: string; sure: boolean } {
  if (!look) return { text: "Looking…", sure: true };
  const { lost, doubted, parts } = look;
  if (lost.length + doubted.length === 0) return { text: parts > 1 ? `All ${parts} parts have their place` : "It has its place", sure: true };
  const said = [lost.length > 0 && `Not found: ${counted(lost)}`, doubted.length > 0 && `Not sure: ${counted(doubted)}`];
  return { text: said.filter(Boolean).join(". "), sure: false };
}

function counted(parts: readonly string[]): string {
  const counts = new Map<string, number>();
  for (const part of parts) {
    const name = part === "fold_down" ? "fold" : part;
    counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return [...counts].map(([name, count]) => (count > 1 ? `${count} ${NAMES[name]?.[1] ?? name}` : (NAMES[name]?.[0] ?? name))).join(", ");
}
