import { create } from "zustand";

/** A short line at the lower edge; never a window that interrupts. */
export interface Notice {
  id: number;
  tone: "info" | "error";
  text: string;
  hint?: string;
  action?: { label: string; run: () => void };
}

interface Notices {
  notices: Notice[];
  show: (notice: Omit<Notice, "id">) => void;
  dismiss: (id: number) => void;
}

const STAY_MS = 9_000;
const MOST = 3;
let lastId = 0;

export const useNotices = create<Notices>((set) => ({
  notices: [],
  show: (notice) => {
    lastId += 1;
    const id = lastId;
    set((state) => ({ notices: [...state.notices, { ...notice, id }].slice(-MOST) }));
    // What can be undone stays until it is dismissed: people look away.
    if (notice.action) return;
    setTimeout(() => {
      set((state) => ({ notices: state.notices.filter((row) => row.id !== id) }));
    }, STAY_MS);
  },
  dismiss: (id) => {
    set((state) => ({ notices: state.notices.filter((row) => row.id !== id) }));
  },
}));
