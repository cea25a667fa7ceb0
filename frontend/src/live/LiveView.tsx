import { type KeyboardEvent, useEffect, useRef, useState } from "react";

import { connection, useLive } from "./connection";
import type { Area, ScreenSize } from "./messages";
import { areaBetween, buttonOf, FingerAsPointer, fittedTo, keyInput, modifiersOf, placeOn } from "./pointing";

/** What the pointer is for: the page itself, or choosing what of it is taken. */
export type Choosing = "nothing" | "element" | "panel" | "area";

const POINT_EVERY_MS = 60;
const CLICK_AGAIN_MS = 400;
const LINE_PX = 40;
const PAGE_PX = 700;
/** What padding and border take of the room. */
const EDGE_PX = 10;

interface LiveViewProps {
  screen: ScreenSize;
  choosing: Choosing;
  onElement: (target: string) => void;
  onArea: (area: Area) => void;
  onCancel: () => void;
}

/** The page as it is in the server's browser, under this person's hands. */
export function LiveView({ screen, choosing, onElement, onArea, onCancel }: LiveViewProps) {
  const room = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const place = useLive((state) => state.place);
  const pointed = useLive((state) => state.pointed);
  const progress = useLive((state) => state.progress);
  const isLost = useLive((state) => state.link !== "on");
  const [area, setArea] = useState<Area | null>(null);

  useEffect(() => {
    const element = room.current;
    if (!element) return;
    const fit = () => setSize(fittedTo(screen, { width: element.clientWidth - EDGE_PX, height: element.clientHeight - EDGE_PX }));
    const observer = new ResizeObserver(fit);
    observer.observe(element);
    return () => observer.disconnect();
  }, [screen]);

  useEffect(() => {
    connection.drawBy((picture) => {
      const element = canvas.current;
      if (!element) return;
      if (element.width !== picture.width || element.height !== picture.height) {
        // The moving frames of a dense screen are smaller: they are drawn as large as the sharp ones.
        if (picture.width >= element.width || element.dataset.screen !== screenKey(screen)) {
          element.width = picture.width;
          element.height = picture.height;
          element.dataset.screen = screenKey(screen);
        }
      }
      element.getContext("2d")?.drawImage(picture, 0, 0, element.width, element.height);
      element.dataset.frames = String(Number(element.dataset.frames ?? 0) + 1);
    });
  }, [screen]);

  useHands({ canvas, screen, choosing, setArea, onElement, onArea });

  const hearKey = (act: "down" | "up") => (event: KeyboardEvent) => {
    if (event.nativeEvent.isComposing) return;
    if (event.key === "F6") {
      event.preventDefault();
      if (act === "down") document.querySelector<HTMLElement>("[data-live-typing]")?.focus();
      return;
    }
    // Keys of ours mean nothing here: all of them are the page's.
    event.stopPropagation();
    if (choosing !== "nothing") {
      if (event.key === "Escape" && act === "down") onCancel();
      return;
    }
    const pastes = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "v";
    if (pastes) return;
    event.preventDefault();
    connection.input(keyInput(act, event.nativeEvent));
  };

  const scale = size.width / screen.width_px;
  const box = choosing === "area" ? area : choosing !== "nothing" ? pointed?.box : null;
  return (
    <div ref={room} className="relative -m-1 min-h-0 flex-1 overflow-hidden p-1" data-live-room>
      <div className="relative mx-auto border border-base-300 bg-white" style={{ width: size.width, height: size.height }}>
        <canvas
          ref={canvas}
          tabIndex={0}
          role="application"
          aria-roledescription="live page"
          aria-label={`${place?.title || "The page"}, in the server’s browser. Keys go to the page; F6 leaves it.`}
          className="block h-full w-full touch-none outline-offset-1 focus-visible:outline-2 focus-visible:outline-accent"
          style={{ cursor: choosing === "nothing" ? "default" : "crosshair" }}
          onKeyDown={hearKey("down")}
          onKeyUp={hearKey("up")}
          onPaste={(event) => {
            const text = event.clipboardData.getData("text/plain");
            if (text) connection.input({ kind: "text", text: text.slice(0, 10_000) });
          }}
          onContextMenu={(event) => event.preventDefault()}
        />
        {box && (
          <div
            data-outlined
            className="pointer-events-none absolute border-2 border-accent bg-accent/10"
            style={{ left: box.x_px * scale, top: box.y_px * scale, width: box.width_px * scale, height: box.height_px * scale, maxWidth: `calc(100% - ${box.x_px * scale}px)`, maxHeight: `calc(100% - ${box.y_px * scale}px)` }}
          />
        )}
        {(isLost || progress) && (
          <p role="status" className="absolute inset-x-0 top-0 bg-neutral px-3 py-2 text-neutral-content">
            {isLost ? "The connection is lost. It is tried again; the page waits for two minutes." : takingWords(progress)}
          </p>
        )}
      </div>
    </div>
  );
}

function screenKey(screen: ScreenSize): string {
  return `${screen.width_px}x${screen.height_px}@${screen.scale}`;
}

function takingWords(progress: { stage: string; done: number; expected: number } | null): string {
  if (progress?.stage === "scrolling") return `The page is looked through: ${progress.done.toLocaleString("en-GB")} of ${progress.expected.toLocaleString("en-GB")} px`;
  return "The picture is taken. The page is as it was afterwards.";
}

interface Hands {
  canvas: React.RefObject<HTMLCanvasElement | null>;
  screen: ScreenSize;
  choosing: Choosing;
  setArea: (area: Area | null) => void;
  onElement: (target: string) => void;
  onArea: (area: Area) => void;
}

/** Pointer, wheel and fingers on the page. */
function useHands({ canvas, screen, choosing, setArea, onElement, onArea }: Hands): void {
  const told = useRef({ onElement, onArea, setArea });
  useEffect(() => {
    told.current = { onElement, onArea, setArea };
  });
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const ending = new AbortController();
    const { signal } = ending;
    const at = (event: { clientX: number; clientY: number }) => placeOn(screen, element.getBoundingClientRect(), event.clientX, event.clientY);
    const finger = new FingerAsPointer();
    const fingers = new Map<number, { x_px: number; y_px: number }>();
    let clicks = 0;
    let last = { at_ms: 0, x_px: 0, y_px: 0 };
    let pointedAt_ms = 0;
    let pointed = { x_px: 0, y_px: 0 };
    let outer = 0;
    const point = () => connection.send({ kind: "point", ...pointed, outer, panel: choosing === "panel" });
    let corner: { x_px: number; y_px: number } | null = null;
    const touch = (act: "start" | "move" | "end" | "cancel", event: PointerEvent) => {
      const place = at(event);
      if (!screen.touch) {
        const inputs = act === "start" ? finger.start(place) : act === "move" ? finger.move(place) : finger.end();
        inputs.forEach((input) => connection.input(input));
        return;
      }
      if (act === "end" || act === "cancel") fingers.delete(event.pointerId);
      else fingers.set(event.pointerId, place);
      connection.input({ kind: "touch", act, fingers: [...fingers.values()].map((row, number) => [row.x_px, row.y_px, number]) });
    };
    const choose = (event: PointerEvent, act: "down" | "move" | "up") => {
      const place = at(event);
      if (choosing === "area") {
        if (act === "down") corner = place;
        if (!corner) return;
        const area = areaBetween(screen, corner, place);
        told.current.setArea(area);
        if (act === "up") {
          corner = null;
          told.current.setArea(null);
          told.current.onArea(area);
        }
        return;
      }
      if (act === "up") {
        const found = useLive.getState().pointed;
        if (found?.box && found.target) told.current.onElement(found.target);
      } else if (performance.now() - pointedAt_ms > POINT_EVERY_MS) {
        pointedAt_ms = performance.now();
        pointed = place;
        point();
      }
    };
    const hear = (act: "down" | "move" | "up") => (event: PointerEvent) => {
      if (act === "down") {
        element.focus({ preventScroll: true });
        element.setPointerCapture(event.pointerId);
      }
      if (choosing !== "nothing") {
        choose(event, act);
        return;
      }
      if (event.pointerType === "touch") {
        if (act !== "move" || event.buttons) touch(act === "down" ? "start" : act === "up" ? "end" : "move", event);
        return;
      }
      const place = at(event);
      if (act === "down") {
        const isAgain = event.timeStamp - last.at_ms < CLICK_AGAIN_MS && Math.hypot(place.x_px - last.x_px, place.y_px - last.y_px) < 5;
        clicks = isAgain ? Math.min(3, clicks + 1) : 1;
        last = { at_ms: event.timeStamp, ...place };
      }
      connection.input({
        kind: "pointer",
        act,
        ...place,
        button: act === "move" ? "none" : buttonOf(event.button),
        buttons: event.buttons & 7,
        clicks: act === "move" ? 0 : clicks,
        modifiers: modifiersOf(event),
      });
    };
    element.addEventListener("pointerdown", hear("down"), { signal });
    element.addEventListener("pointermove", hear("move"), { signal });
    element.addEventListener("pointerup", hear("up"), { signal });
    element.addEventListener("pointercancel", (event) => touch("cancel", event), { signal });
    element.addEventListener(
      "wheel",
      (event) => {
        event.preventDefault();
        if (choosing === "element" || choosing === "panel") {
          outer = Math.max(0, outer - Math.sign(event.deltaY));
          point();
          return;
        }
        const unit = event.deltaMode === 1 ? LINE_PX : event.deltaMode === 2 ? PAGE_PX : 1;
        connection.input({ kind: "pointer", act: "wheel", ...at(event), right_px: event.deltaX * unit, down_px: event.deltaY * unit, modifiers: modifiersOf(event) });
      },
      { signal, passive: false },
    );
    return () => ending.abort();
  }, [canvas, screen, choosing]);
}
