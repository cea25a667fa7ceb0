import type { Choices, Dialog, Focus, Place, Pointed, Progress, Refusal, ScreenSize, Steps, Taken, Told } from "./messages";

export interface Live {
  /** How things stand with the server. */
  link: "connecting" | "on" | "lost" | "elsewhere" | "not_allowed";
  /** The screen of the page that is open; null while none is. */
  screen: ScreenSize | null;
  /** The screen of the page that was open last. */
  lastScreen: ScreenSize | null;
  place: Place | null;
  dialog: Dialog | null;
  steps: Steps;
  focus: Focus | null;
  pointed: Pointed | null;
  choices: Choices | null;
  /** How far a picture is; null while none is taken. */
  progress: Progress | null;
  taken: readonly Taken[];
  /** Why the page could not be opened or taken. */
  refusal: Refusal | null;
  /** Why the page is not open any more. */
  ended: Refusal | null;
  isIdle: boolean;
  /** Whether the page has not reacted for a while to what was done. */
  isStuck: boolean;
}

/** What there is of a page that is not open. */
export function closed() {
  return { screen: null, place: null, dialog: null, steps: { address: "", steps: [], left_out: [] } as Steps, focus: null, pointed: null, choices: null, progress: null, isIdle: false, isStuck: false };
}

export function atFirst(): Live {
  return { ...closed(), link: "connecting", lastScreen: null, taken: [], refusal: null, ended: null };
}

/** What changes by something that was told. What is only said changes nothing. */
export function after(told: Told, before: Live): Partial<Live> {
  switch (told.kind) {
    case "hello": {
      if (told.open) return { link: "on", screen: told.open.screen, lastScreen: told.open.screen, place: { address: told.open.address, title: "", loading: false }, ended: null };
      const { place } = before;
      return { ...closed(), link: "on", place, ended: place && before.screen ? { sentence: "The live page has been closed meanwhile." } : before.ended };
    }
    case "place":
      return { isStuck: false, place: { address: told.address, title: told.title, loading: told.loading } };
    case "dialog":
      return { dialog: told.asks === null ? null : told };
    case "steps":
      return { isStuck: false, steps: told };
    case "focus":
      return { focus: told.of ? told : null };
    case "pointed":
      return { pointed: told };
    case "choices":
      return { choices: told };
    case "taking":
      return { progress: told };
    case "taken":
      return { progress: null, taken: [...before.taken, told] };
    case "not_taken":
      return { progress: null, refusal: told };
    case "failed":
      return told.open === false ? { ...closed(), place: before.place && { ...before.place, loading: false }, refusal: told } : { progress: null, refusal: told };
    case "ended":
      return { ...closed(), place: before.place, ended: told };
    case "stuck":
      return { isStuck: true };
    case "idle":
      return { isIdle: true };
    case "said":
    case "sign_in_kept":
      return {};
  }
}
