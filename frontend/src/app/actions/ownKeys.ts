import { create } from "zustand";

/** Keys by action, where somebody has chosen others than the usual. */
export type OwnKeys = Readonly<Record<string, readonly string[]>>;

const KEPT = "tallpage.keys";

function kept(): OwnKeys {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? "{}") as OwnKeys;
  } catch {
    return {};
  }
}

/** What this browser knows of them, at once; the server's are fetched once keys are looked at or changed. */
export const useOwnKeys = create<{ own: OwnKeys; set: (own: OwnKeys) => void }>((set) => ({
  own: typeof localStorage === "undefined" ? {} : kept(),
  set: (own) => {
    localStorage.setItem(KEPT, JSON.stringify(own));
    set({ own });
  },
}));
