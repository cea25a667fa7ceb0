import { createContext, useContext } from "react";
import { create } from "zustand";
import { persist } from "zustand/middleware";

import type { TakeChanges, TakeSettings } from "../../api/types";
import { own, useOwn } from "../../app/own";

/** How pages are taken when nobody says otherwise: right for most. */
export const USUAL: Required<TakeSettings> = {
  extent: "full",
  element: "",
  to_element: "",
  from_px: 0,
  max_height_px: null,
  max_screens: null,
  page_width: "screen",
  scheme: "light",
  language: "en-GB",
  steps: [],
  wait_ms: 0,
  leave_out: [],
  fixed_overlays: "leave_out",
  busy_s: 60,
  signed_in: true,
};

interface TakeChangesState {
  changes: TakeChanges;
  /** Counts the times everything was set back: fields that hold half-typed text begin anew then. */
  resets: number;
  change: (change: Partial<TakeSettings>) => void;
  reset: () => void;
}

/** How pages are taken that nothing is said of here: as right for most, and as the person has set it. */
export function usualTaking(set: unknown = own("take.usual", {})): Required<TakeSettings> {
  return { ...USUAL, ...(set as TakeChanges) };
}

/** How the next pages are taken otherwise than usual, remembered by this browser. */
export const useTakeChanges = create<TakeChangesState>()(
  persist(
    (set) => ({
      changes: {},
      resets: 0,
      change: (change) => set(({ changes }) => ({ changes: differing({ ...usualTaking(), ...changes, ...change }, usualTaking()) })),
      reset: () => set(({ resets }) => ({ changes: {}, resets: resets + 1 })),
    }),
    {
      name: "tallpage.settings",
      merge: (kept, state) => ({ ...state, changes: asKnownNow(kept as KeptTaking | undefined) }),
    },
  ),
);

/** What a form of them shows and changes: the next pages, unless a context says others. */
export interface TakeForm {
  settings: Required<TakeSettings>;
  change: (change: TakeChanges) => void;
}

export function useTakeSettings(): TakeForm {
  const set = useOwn((state) => state.values["take.usual"]);
  const { changes, change } = useTakeChanges();
  return useContext(TakeFormContext) ?? { settings: { ...usualTaking(set), ...changes }, change };
}

export const TakeFormContext = createContext<TakeForm | null>(null);

interface KeptTaking {
  changes?: TakeChanges;
  /** As earlier versions kept all of them; one had the name of `hanging`. */
  settings?: TakeChanges & { hanging?: "leave_out" | "keep" };
}

/** What is remembered, maybe by an earlier version. */
export function asKnownNow(kept: KeptTaking | undefined): TakeChanges {
  if (kept?.changes) return kept.changes;
  const { hanging, ...others } = kept?.settings ?? {};
  return differing({ ...USUAL, ...(hanging && { fixed_overlays: hanging }), ...others }, USUAL);
}

/** What of some settings differs from others. */
export function differing(settings: Required<TakeSettings>, from: Required<TakeSettings>): TakeChanges {
  const names = (Object.keys(USUAL) as (keyof TakeSettings)[]).filter((name) => JSON.stringify(settings[name]) !== JSON.stringify(from[name]));
  return Object.fromEntries(names.map((name) => [name, settings[name]]));
}
