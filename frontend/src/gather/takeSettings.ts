import { create } from "zustand";
import { persist } from "zustand/middleware";

import type { Step, TakeSettings } from "../api/types";

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

interface TakeSettingsState {
  settings: Required<TakeSettings>;
  /** Counts the times everything was set back: fields that hold half-typed text begin anew then. */
  resets: number;
  change: (change: Partial<TakeSettings>) => void;
  reset: () => void;
}

/** How the next pages are taken, remembered by this browser. */
export const useTakeSettings = create<TakeSettingsState>()(
  persist(
    (set) => ({
      settings: USUAL,
      resets: 0,
      change: (change) => set(({ settings }) => ({ settings: { ...settings, ...change } })),
      reset: () => set(({ resets }) => ({ settings: USUAL, resets: resets + 1 })),
    }),
    {
      name: "tallpage.settings",
      merge: (kept, state) => ({ ...state, settings: asKnownNow((kept as { settings?: object } | undefined)?.settings ?? {}) }),
    },
  ),
);

/** Remembered settings, maybe of a version that knew fewer of them, or one by the name of `hanging`. */
export function asKnownNow(kept: object): Required<TakeSettings> {
  const { hanging, ...others } = kept as Partial<TakeSettings> & { hanging?: "leave_out" | "keep" };
  return { ...USUAL, ...(hanging && { fixed_overlays: hanging }), ...others };
}

/** How many of the settings differ from the usual ones. */
export function countUnusual(settings: Required<TakeSettings>): number {
  const names = Object.keys(USUAL) as (keyof TakeSettings)[];
  return names.filter((name) => JSON.stringify(settings[name]) !== JSON.stringify(USUAL[name])).length;
}

/** CSS selectors out of a field: one a line, or separated by commas outside brackets. */
export function splitSelectors(text: string): string[] {
  return text
    .split(/\n|,(?![^([]*[)\]])/)
    .map((part) => part.trim())
    .filter(Boolean);
}

export type StepKind = Step["kind"];

/** What each kind of step is called, and which of its two fields it has. */
export const STEP_KINDS: Record<StepKind, { words: string; target: boolean; text: string }> = {
  click: { words: "Click", target: true, text: "" },
  hover: { words: "Put the pointer on", target: true, text: "" },
  type: { words: "Type into", target: true, text: "the text" },
  press: { words: "Press the key", target: false, text: "Enter" },
  scroll: { words: "Scroll to", target: true, text: "" },
  wait_for: { words: "Wait until there is", target: true, text: "" },
  pause: { words: "Pause, in seconds", target: false, text: "1.5" },
};

/** The step as another kind, without what that kind does not have. */
export function stepAs(step: Step, kind: StepKind): Step {
  const has = STEP_KINDS[kind];
  return { kind, target: has.target ? step.target : "", text: has.text ? step.text : "" };
}
