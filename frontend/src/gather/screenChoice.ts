import { create } from "zustand";
import { persist } from "zustand/middleware";

interface ScreenChoice {
  chosen: string[];
  toggle: (name: string) => void;
  /** A screen that is no more. */
  drop: (name: string) => void;
}

const FIRST = ["desk"];

/** Which screens the next pages are taken on; at least one stays chosen. */
export const useScreenChoice = create<ScreenChoice>()(
  persist(
    (set) => {
      const without = (chosen: string[], name: string) => {
        const rest = chosen.filter((row) => row !== name);
        return rest.length > 0 ? rest : FIRST;
      };
      return {
        chosen: FIRST,
        toggle: (name) =>
          set(({ chosen }) => ({ chosen: chosen.includes(name) ? without(chosen, name) : [...chosen, name] })),
        drop: (name) => set(({ chosen }) => ({ chosen: without(chosen, name) })),
      };
    },
    { name: "tallpage.screens" },
  ),
);
