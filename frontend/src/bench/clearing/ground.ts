import { create } from "zustand";

interface Ground {
  /** What the page lies on while it is looked at; null is a pattern of checks. */
  ground: string | null;
  setGround: (ground: string | null) => void;
}

/** Not a part of the cut: a way to look at what shows through. */
export const useGround = create<Ground>((set) => ({ ground: null, setGround: (ground) => set({ ground }) }));
