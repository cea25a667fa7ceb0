import { create } from "zustand";

interface Chosen {
  ids: ReadonlySet<number>;
  /** Where a range begins that is ended by a press with Shift. */
  anchor: number | null;
  /** Chooses one more or one less. */
  toggle: (id: number) => void;
  /** Chooses all from where the last one was to this one, in the order in which they are shown. */
  upTo: (id: number, shown: readonly number[]) => void;
  choose: (ids: readonly number[]) => void;
  clear: () => void;
}

/** Which captures of the shelf are chosen. */
export const useChosen = create<Chosen>((set) => ({
  ids: new Set(),
  anchor: null,
  toggle: (id) =>
    set(({ ids }) => {
      const next = new Set(ids);
      if (!next.delete(id)) next.add(id);
      return { ids: next, anchor: id };
    }),
  upTo: (id, shown) => set(({ ids, anchor }) => ({ ids: new Set([...ids, ...between(shown, anchor ?? id, id)]) })),
  choose: (ids) => set({ ids: new Set(ids), anchor: null }),
  clear: () => set({ ids: new Set(), anchor: null }),
}));

interface Press {
  shiftKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
  preventDefault(): void;
  stopPropagation(): void;
}

/** A press with Ctrl chooses one more or one less, one with Shift all up to it; without them it does what it does. */
export function pressed(event: Press, id: number, shown: readonly number[]): void {
  if (!event.shiftKey && !event.ctrlKey && !event.metaKey) return;
  event.preventDefault();
  event.stopPropagation();
  if (event.shiftKey) useChosen.getState().upTo(id, shown);
  else useChosen.getState().toggle(id);
}

/** Those from one to another, in either direction; the last alone where the first is not shown. */
export function between(shown: readonly number[], first: number, last: number): number[] {
  const [from, to] = [shown.indexOf(first), shown.indexOf(last)];
  if (from < 0 || to < 0) return [last];
  return shown.slice(Math.min(from, to), Math.max(from, to) + 1);
}
