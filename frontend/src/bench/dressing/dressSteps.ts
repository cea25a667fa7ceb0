import type { Dressing } from "../../api/types";
import type { CutStore } from "../cut/cutStore";

/** What a person puts around a cut's picture: each a step of its history. */

export type DressingPart = keyof Dressing;

/** Put a part on, change some of it, or take it off with null. */
export function dress<P extends DressingPart>(store: CutStore, part: P, value: Dressing[P] | null, words: string, gesture?: string): void {
  store.commit(
    words,
    (cut) => {
      const rest = { ...cut.dressing, [part]: value } as Dressing;
      const worn = Object.fromEntries(Object.entries(rest).filter(([, row]) => Boolean(row)));
      if (Object.keys(worn).length > 0) cut.dressing = worn;
      else delete cut.dressing;
    },
    gesture,
  );
}
