import type { Area, Input, ScreenSize } from "./messages";

/** Where the page is shown, in px of the window. */
export interface Shown {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** A place of the window as a place of the page's own window, CSS px. */
export function placeOn(screen: ScreenSize, shown: Shown, clientX: number, clientY: number): { x_px: number; y_px: number } {
  const along = (at: number, from: number, length: number, whole: number) => Math.min(whole - 1, Math.max(0, Math.round(((at - from) / Math.max(1, length)) * whole)));
  return { x_px: along(clientX, shown.left, shown.width, screen.width_px), y_px: along(clientY, shown.top, shown.height, screen.height_px) };
}

/** How large a screen is shown in a room: whole, and never larger than it is. */
export function fittedTo(screen: ScreenSize, room: { width: number; height: number }): { width: number; height: number } {
  const scale = Math.min(1, room.width / screen.width_px, room.height / screen.height_px);
  return { width: Math.max(1, Math.floor(screen.width_px * scale)), height: Math.max(1, Math.floor(screen.height_px * scale)) };
}

/** The box between two places, at least one px wide and high, within the screen. */
export function areaBetween(screen: ScreenSize, one: { x_px: number; y_px: number }, other: { x_px: number; y_px: number }): Area {
  const x_px = Math.min(one.x_px, other.x_px);
  const y_px = Math.min(one.y_px, other.y_px);
  return {
    x_px,
    y_px,
    width_px: Math.min(screen.width_px - x_px, Math.max(1, Math.abs(one.x_px - other.x_px))),
    height_px: Math.min(screen.height_px - y_px, Math.max(1, Math.abs(one.y_px - other.y_px))),
  };
}

interface Modified {
  altKey: boolean;
  ctrlKey: boolean;
  metaKey: boolean;
  shiftKey: boolean;
}

export function modifiersOf(event: Modified): number {
  return Number(event.altKey) + 2 * Number(event.ctrlKey) + 4 * Number(event.metaKey) + 8 * Number(event.shiftKey);
}

const BUTTONS = ["left", "middle", "right"] as const;

export function buttonOf(button: number): "none" | "left" | "middle" | "right" {
  return BUTTONS[button] ?? "none";
}

interface Key extends Modified {
  key: string;
  code: string;
  keyCode: number;
  repeat: boolean;
}

/** A key as the page is told of it. Enter types a line; what is held with Control or Meta types nothing. */
export function keyInput(act: "down" | "up", event: Key): Input {
  const types = act === "down" && !event.ctrlKey && !event.metaKey;
  const text = !types ? "" : event.key === "Enter" ? "\r" : Array.from(event.key).length === 1 ? event.key : "";
  return {
    kind: "key",
    act,
    key: event.key,
    code: event.code,
    key_code: event.keyCode <= 255 ? event.keyCode : 0,
    text,
    modifiers: modifiersOf(event),
    repeats: event.repeat,
  };
}

const STILL_PX = 8;

/** Fingers on a page that knows none: a tap is a click, and what is drawn along scrolls. */
export class FingerAsPointer {
  private last: { x_px: number; y_px: number } | null = null;
  private moved = false;

  start(place: { x_px: number; y_px: number }): Input[] {
    this.last = place;
    this.moved = false;
    return [];
  }

  move(place: { x_px: number; y_px: number }): Input[] {
    if (!this.last) return [];
    const right = this.last.x_px - place.x_px;
    const down = this.last.y_px - place.y_px;
    if (!this.moved && Math.hypot(right, down) < STILL_PX) return [];
    this.moved = true;
    this.last = place;
    return [{ kind: "pointer", act: "wheel", ...place, right_px: right, down_px: down }];
  }

  end(): Input[] {
    const place = this.last;
    this.last = null;
    if (!place || this.moved) return [];
    const click = { kind: "pointer" as const, ...place, button: "left" as const, clicks: 1 };
    return [{ kind: "pointer", act: "move", ...place }, { ...click, act: "down", buttons: 1 }, { ...click, act: "up" }];
  }
}
