import { create } from "zustand";
import { persist } from "zustand/middleware";

import { own, useOwn } from "../app/own";

interface ScreenChoice {
  /** Null while nobody has chosen here. */
  chosen: string[] | null;
  toggle: (name: string) => void;
  /** A screen that is no more. */
  drop: (name: string) => void;
}

const FIRST = ["desk"];

/** Which screens the next pages are taken on: as chosen here, else as set; at least one stays chosen. */
export function useChosenScreens(): string[] {
  const set = useOwn((state) => state.values["take.screens"] as string[] | undefined);
  return useScreenChoice((state) => state.chosen) ?? set ?? FIRST;
}

export const useScreenChoice = create<ScreenChoice>()(
  persist(
    (set) => {
      const without = (chosen: readonly string[], name: string) => {
        const rest = chosen.filter((row) => row !== name);
        return rest.length > 0 ? rest : null;
      };
      const now = (chosen: string[] | null) => chosen ?? own("take.screens", FIRST);
      return {
        chosen: null,
        toggle: (name) =>
          set(({ chosen }) => ({ chosen: now(chosen).includes(name) ? without(now(chosen), name) : [...now(chosen), name] })),
        drop: (name) => set(({ chosen }) => ({ chosen: chosen && without(chosen, name) })),
      };
    },
    { name: "tallpage.screens" },
  ),
);
