import { create } from "zustand";

/** A screen that is shared: what the browser calls it, and its size in device px. */
export interface Shared {
  label: string;
  surface: "tab" | "window" | "screen";
  video: HTMLVideoElement;
}

type Sharing = { state: "off" } | { state: "asking" } | { state: "on"; shared: Shared } | { state: "ended"; why: string };

/** More than any screen has: the browser gives what there is. */
const MOST_PX = 8_192;
const SURFACES: Record<string, Shared["surface"]> = { browser: "tab", window: "window", monitor: "screen" };

/** Whether a screen is shared, and which. Nothing of it leaves this browser but what is grabbed. */
export const useSharing = create<Sharing>(() => ({ state: "off" }));

const set = (sharing: Sharing) => useSharing.setState(sharing, true);

/** Asks by the browser's own dialog which tab, window or screen is shared. */
export async function startSharing(): Promise<void> {
  set({ state: "asking" });
  try {
    const stream = await navigator.mediaDevices.getDisplayMedia({
      video: { width: { ideal: MOST_PX }, height: { ideal: MOST_PX } },
      audio: false,
    });
    if (useSharing.getState().state !== "asking") {
      stop(stream); // the screen was left meanwhile: nobody would see that sharing is on
      return;
    }
    const video = document.createElement("video");
    video.className = "w-full";
    video.muted = true;
    video.srcObject = stream;
    await video.play();
    const track = stream.getVideoTracks()[0];
    track?.addEventListener("ended", () => set({ state: "ended", why: "Sharing was ended. What was grabbed is on the shelf." }));
    set({ state: "on", shared: { label: track?.label ?? "", surface: SURFACES[track?.getSettings().displaySurface ?? ""] ?? "screen", video } });
  } catch (error) {
    const isRefused = error instanceof DOMException && error.name === "NotAllowedError";
    set({ state: "ended", why: isRefused ? "Nothing is shared: the browser was told not to, or nothing was chosen." : "This browser cannot share a screen here." });
  }
}

/** Ends it at once. */
export function endSharing(): void {
  const now = useSharing.getState();
  if (now.state === "on") stop(now.shared.video.srcObject as MediaStream);
  set({ state: "off" });
}

function stop(stream: MediaStream): void {
  for (const track of stream.getTracks()) track.stop();
}

/** What is seen now as PNG: pixel for pixel, or as large as it fits on a size, for a window may change its own. */
export async function grabbed({ video }: Shared, width = video.videoWidth, height = video.videoHeight): Promise<Blob> {
  const scale = Math.min(width / video.videoWidth, height / video.videoHeight);
  const [across, down] = [Math.round(video.videoWidth * scale), Math.round(video.videoHeight * scale)];
  const canvas = canvasOf(width, height);
  canvas.getContext("2d")?.drawImage(video, (width - across) >> 1, (height - down) >> 1, across, down);
  const blob = await new Promise<Blob | null>((resolve) => {
    canvas.toBlob(resolve, "image/png");
  });
  if (!blob) throw new Error("The browser gave no picture.");
  return blob;
}

const SMALL_PX = 96;

/** What is seen now, very small and grey: to tell whether anything moved. */
export function glimpse({ video }: Shared): Uint8Array {
  const context = canvasOf(SMALL_PX, SMALL_PX).getContext("2d", { willReadFrequently: true });
  context?.drawImage(video, 0, 0, SMALL_PX, SMALL_PX);
  const pixels = context?.getImageData(0, 0, SMALL_PX, SMALL_PX).data ?? new Uint8ClampedArray();
  return Uint8Array.from({ length: pixels.length / 4 }, (_, at) => ((pixels[4 * at] ?? 0) + 2 * (pixels[4 * at + 1] ?? 0) + (pixels[4 * at + 2] ?? 0)) >> 2);
}

function canvasOf(width: number, height: number): HTMLCanvasElement {
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  return canvas;
}
