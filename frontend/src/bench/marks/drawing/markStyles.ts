import { create } from "zustand";

import { fetchStyles, fetchUsualLooks, forgetStyle, keepStyle } from "../../../api/marks";
import type { Mark, MarkKind, MarkStyle } from "../../../api/types";
import { showProblem } from "../../../app/showProblem";
import type { CutStore } from "../../cut/cutStore";
import { lastLook, lengthsOf, type Look, shownValue, type UsualLooks } from "./looks";

/** Looks with a name. A cut that uses one has a copy of its own. */

/** The fields of a mark that a style can say. */
const SAYS = ["opacity", "thickness_px", "filling", "colour", "outline_colour", "outline_px", "dashes", "heads", "corner_px", "size_px", "weight", "align", "plate"] as const;

interface MarkStyles {
  styles: MarkStyle[];
  /** How each kind looks where nothing else is said. */
  usual: UsualLooks;
  /** Fetch both: before, no mark has a usual look. */
  load: () => Promise<void>;
  /** Keep a look under a name; what is kept, or null where it could not be. */
  keep: (style: MarkStyle) => Promise<MarkStyle | null>;
  remove: (name: string) => Promise<void>;
}

export const useMarkStyles = create<MarkStyles>((set, get) => {
  const take = async (asked: Promise<MarkStyle[]>): Promise<boolean> => {
    try {
      set({ styles: await asked });
      return true;
    } catch (error) {
      showProblem(error);
      return false;
    }
  };
  return {
    styles: [],
    usual: {},
    load: async () => {
      try {
        const [styles, usual] = await Promise.all([fetchStyles(), fetchUsualLooks()]);
        set({ styles, usual });
      } catch (error) {
        showProblem(error);
      }
    },
    keep: async (style) => {
      const name = style.name.trim().replace(/\s+/g, " ");
      return (await take(keepStyle({ ...style, name }))) ? (get().styles.find((row) => row.name === name) ?? null) : null;
    },
    remove: async (name) => {
      await take(forgetStyle(name));
    },
  };
});

/** How each kind of mark looks where it does not say so itself. */
export function useUsualLooks(): UsualLooks {
  return useMarkStyles((state) => state.usual);
}

/** The look of a mark as a style says it. */
export function styleOf(mark: Mark, styles: Record<string, Look>, usual: UsualLooks): Look {
  const fields = usual[mark.kind] ?? {};
  return Object.fromEntries(
    SAYS.flatMap((name) => {
      const value = name in fields ? shownValue(mark, name, styles, usual) : undefined;
      return value == null ? [] : [[name, value]];
    }),
  );
}

/** Give marks a style: what it says, they no longer say themselves. */
export function dressMarks(store: CutStore, ids: readonly string[], style: MarkStyle): void {
  store.commit("style given", (cut) => {
    cut.styles[style.name] = style.look;
    cut.marks = cut.marks.map((mark) => (ids.includes(mark.id) ? styled(mark, style) : mark));
  });
}

function styled(mark: Mark, { name, look }: MarkStyle): Mark {
  const own = Object.entries(mark).filter(([field]) => !(field in look));
  return { ...(Object.fromEntries(own) as unknown as Mark), style: name };
}

/** What a new mark of a kind looks like on a page of a density: in the usual style, or as the last one did. */
export function newLook(kind: MarkKind, scale: number): Look {
  const style = usualStyle(kind);
  if (style) return { style: style.name };
  // A plate of text has an outline at first, so that it is seen on any ground.
  const outline = kind === "text" ? { outline_px: 2 } : {};
  const lengths = scale === 1 ? {} : lengthsOf(useMarkStyles.getState().usual[kind] ?? {});
  return lastLook(kind, { ...lengths, ...outline }, scale);
}

/** The style with which marks of a kind begin. */
export function usualStyle(kind: MarkKind): MarkStyle | undefined {
  return useMarkStyles.getState().styles.find((row) => row.usual_for.includes(kind));
}
