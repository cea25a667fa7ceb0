/** What a live page and the interface say to each other over the socket, as `server/live/messages.py` has it. */

export interface ScreenSize {
  width_px: number;
  height_px: number;
  scale: number;
  touch: boolean;
}

export interface Area {
  x_px: number;
  y_px: number;
  width_px: number;
  height_px: number;
}

export type Extent = "full" | "view" | "element" | "panel";

export type PointerAct = "move" | "down" | "up" | "wheel";

/** An input without its number, which is given when it is sent. */
export type Input =
  | {
      kind: "pointer";
      act: PointerAct;
      x_px: number;
      y_px: number;
      button?: "none" | "left" | "middle" | "right";
      buttons?: number;
      clicks?: number;
      modifiers?: number;
      right_px?: number;
      down_px?: number;
    }
  | { kind: "touch"; act: "start" | "move" | "end" | "cancel"; fingers: [number, number, number][]; modifiers?: number }
  | { kind: "key"; act: "down" | "up"; key: string; code: string; key_code: number; text: string; modifiers: number; repeats: boolean }
  | { kind: "text"; text: string };

export type Order =
  | { kind: "open"; address: string; screen: ScreenSize }
  | { kind: "move"; by: -1 | 0 | 1 }
  | { kind: "drawn" }
  | { kind: "point"; x_px: number; y_px: number; outer: number; panel: boolean }
  | { kind: "choose"; number: number }
  | { kind: "answer"; accept: boolean; text?: string }
  | { kind: "forget"; number: number }
  | { kind: "take"; extent: Extent; target?: string; area?: Area | null }
  | { kind: "stay" | "keep_sign_in" | "open_again" | "close" };

export interface Place {
  address: string;
  title: string;
  loading: boolean;
}

export interface Dialog {
  asks: "alert" | "confirm" | "prompt" | "beforeunload";
  message: string;
  default: string;
}

export interface Steps {
  address: string;
  steps: string[];
  left_out: ("password" | "frame" | "more")[];
}

export interface Focus {
  of: string;
  label: string;
  typed: boolean;
}

export interface Pointed {
  box: Area | null;
  target?: string;
  words?: string;
}

export interface Choices {
  options: string[];
  chosen: number;
}

export interface Progress {
  stage: string;
  done: number;
  expected: number;
}

export interface Refusal {
  sentence: string;
  hint?: string | undefined;
}

export interface Taken {
  capture: number;
  name: string;
  width_px: number;
  height_px: number;
  warnings: string[];
}

export type Told =
  | { kind: "hello"; open: { address: string; screen: ScreenSize } | null }
  | ({ kind: "place" } & Place)
  | ({ kind: "dialog" } & (Dialog | { asks: null }))
  | { kind: "said"; sentence: string }
  | { kind: "stuck" }
  | ({ kind: "steps" } & Steps)
  | ({ kind: "focus" } & Focus)
  | ({ kind: "pointed" } & Pointed)
  | ({ kind: "choices" } & Choices)
  | ({ kind: "taking" } & Progress)
  | ({ kind: "taken" } & Taken)
  | ({ kind: "not_taken" } & Refusal)
  | ({ kind: "failed"; open?: boolean } & Refusal)
  | ({ kind: "ended"; code?: string } & Refusal)
  | { kind: "idle"; closes_in_s: number }
  | { kind: "sign_in_kept"; host: string };
