import type { ClearedColour, Clearing, PutBack } from "../../api/types";
import type { CutStore } from "../cut/cutStore";

/** What a person does to the transparent background of a cut: each a step of its history. */

export const USUAL_TOLERANCE = 12;
export const MOST_TOLERANCE = 254;
export const MOST_COLOURS = 20;
const MOST_PUT_BACK = 60;

/** Another colour that becomes transparent. */
export function clearColour(store: CutStore, colour: ClearedColour): void {
  change(store, "background cleared", ({ colours = [], ...rest }) => ({ ...rest, colours: [...colours, colour].slice(-MOST_COLOURS) }));
}

export function changeColour(store: CutStore, index: number, to: ClearedColour, gesture?: string): void {
  change(store, "cleared colour changed", ({ colours = [], ...rest }) => ({ ...rest, colours: colours.with(index, to) }), gesture);
}

export function removeColour(store: CutStore, index: number): void {
  change(store, "colour put back", ({ colours = [], ...rest }) => ({ ...rest, colours: colours.toSpliced(index, 1) }));
}

/** A spot that stays: a box, or all that is connected with a px. */
export function putBack(store: CutStore, spot: PutBack): void {
  change(store, "spot put back", ({ put_back = [], ...rest }) => ({ ...rest, put_back: [...put_back, spot].slice(-MOST_PUT_BACK) }));
}

export function forgetPutBack(store: CutStore): void {
  change(store, "spots cleared again", (cleared) => ({ ...cleared, put_back: [] }));
}

/** Without a colour there is nothing to keep of it. */
function change(store: CutStore, words: string, to: (cleared: Clearing) => Clearing, gesture?: string): void {
  store.commit(
    words,
    (cut) => {
      const { put_back = [], colours = [], ...rest } = to({ ...cut.cleared });
      if (colours.length > 0) cut.cleared = { ...rest, colours, ...(put_back.length > 0 && { put_back }) };
      else delete cut.cleared;
    },
    gesture,
  );
}
