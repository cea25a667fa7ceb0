import type { ShelfOrder, Wanted } from "../../api/types";

/** What somebody looks for on the shelf; empty is anything. Of folders 0 is none, null is all of the shelf. */
export interface Looked {
  words: string;
  folder: number | null;
  label: string;
  host: string;
  screen: string;
  since: string;
  until: string;
  state: NonNullable<Wanted["state"]>;
  /** With the pages of sweeps, also where nothing else is said. */
  swept: boolean;
}

export const ANYTHING: Looked = { words: "", folder: null, label: "", host: "", screen: "", since: "", until: "", state: "", swept: false };

export const STATES: readonly { state: Looked["state"]; words: string }[] = [
  { state: "", words: "in any state" },
  { state: "ready", words: "taken" },
  { state: "not_whole", words: "not whole" },
  { state: "warned", words: "with warnings" },
  { state: "failed", words: "failed" },
  { state: "under_way", words: "under way" },
  { state: "not_cleared", words: "rights not cleared" },
];

export const ORDERS: readonly { order: ShelfOrder; words: string }[] = [
  { order: "newest", words: "newest first" },
  { order: "oldest", words: "oldest first" },
  { order: "name", words: "by name" },
  { order: "site", words: "by site" },
  { order: "tallest", words: "tallest first" },
  { order: "heaviest", words: "heaviest first" },
];

/** Whether something in particular is looked for. Then sweeps are looked through too: nobody knows how a page was taken. */
export function isParticular(looked: Looked): boolean {
  return Object.entries(looked).some(([key, value]) => key !== "swept" && value !== ANYTHING[key as keyof Looked]);
}

/** As the server takes it. */
export function wantedOf(looked: Looked): Wanted {
  const { folder, since, until, swept, ...said } = looked;
  return {
    ...said,
    words: said.words.trim(),
    alone: !swept && !isParticular(looked),
    ...(folder !== null && { folder }),
    ...(since && { since }),
    ...(until && { until }),
  };
}

/** As the shelf shows it, of what was kept. */
export function lookedOf(wanted: Wanted): Looked {
  const { words, folder, label, host, screen, since, until, state } = wanted;
  const looked: Looked = {
    words: words ?? "",
    folder: folder ?? null,
    label: label ?? "",
    host: host ?? "",
    screen: screen ?? "",
    since: since ?? "",
    until: until ?? "",
    state: state ?? "",
    swept: false,
  };
  return { ...looked, swept: wanted.alone === false && !isParticular(looked) };
}
