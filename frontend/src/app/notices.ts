import { create } from "zustand";

/** A short line at the lower edge; never a window that interrupts. */
export interface Notice {
  tone: "info" | "error";
  text: string;
  hint?: string;
  action?: { label: string; run: () => void };
}

interface Notices {
  /** What has been said and is not shown yet: what shows it is fetched once there is something to say. */
  waiting: readonly Notice[];
  /** Whether anything was said at all. */
  begun: boolean;
  show: (notice: Notice) => void;
  /** Takes what waits away, to show it. */
  take: () => readonly Notice[];
}

export const MOST_SHOWN = 3;
const STAY_MS = 9_000;
const UNTIL_DISMISSED = 0;

/** How long a line stays. What can be undone stays until it is dismissed: people look away. */
export const stayMs = (notice: Notice) => (notice.action ? UNTIL_DISMISSED : STAY_MS);

export const useNotices = create<Notices>((set, get) => ({
  waiting: [],
  begun: false,
  show: (notice) => set((state) => ({ waiting: [...state.waiting, notice], begun: true })),
  take: () => {
    const { waiting } = get();
    if (waiting.length > 0) set({ waiting: [] });
    return waiting;
  },
}));
