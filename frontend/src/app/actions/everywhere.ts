/**
 * Something that a key does: buttons take their words from here, `?` shows it, hooks bind it.
 *
 * `keys` are as react-hotkeys-hook writes them; of several, each does it. Where a whole set belongs together
 * (arrows), `shown` says them as a person would.
 */
export interface Action {
  scope: Scope;
  /** Under which heading `?` shows it. */
  group: string;
  words: string;
  keys: readonly string[];
  shown?: string;
  /** Whether its keys belong together, or to what they do, and are not changed. */
  fixed?: boolean;
}

export type Scope = "everywhere" | "shelf" | "proofs" | "large" | "bench" | "compare" | "grab";

/** What keys do on every screen; those of single screens are fetched with them. */
export const EVERYWHERE = {
  address: { scope: "everywhere", group: "Everywhere", words: "go to the address field", keys: ["a"] },
  gather: { scope: "everywhere", group: "Everywhere", words: "Gather", keys: ["g"] },
  shelf: { scope: "everywhere", group: "Everywhere", words: "Shelf", keys: ["s"] },
  sweeps: { scope: "everywhere", group: "Everywhere", words: "Sweeps", keys: ["w"] },
  routines: { scope: "everywhere", group: "Everywhere", words: "Routines", keys: ["v"] },
  outlets: { scope: "everywhere", group: "Everywhere", words: "Outlets", keys: ["o"] },
  help: { scope: "everywhere", group: "Everywhere", words: "show or hide these keys", keys: ["?"], fixed: true },
} as const satisfies Record<string, Action>;
