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

/** What is seen now, pixel for pixel, as PNG. */
export async function grabbed({ video }: Shared): Promise<Blob> {
  return pngOf(drawn(video, video.videoWidth, video.videoHeight));
}

/** The same on a picture of a size, as large as it fits on: a window may change its own. */
export async function grabbedOn({ video }: Shared, width: number, height: number): Promise<Blob> {
  if (video.videoWidth === width && video.videoHeight === height) return pngOf(drawn(video, width, height));
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  const scale = Math.min(width / video.videoWidth, height / video.videoHeight);
  const [across, down] = [video.videoWidth * scale, video.videoHeight * scale];
  canvas.getContext("2d")?.drawImage(video, (width - across) / 2, (height - down) / 2, across, down);
  return pngOf(canvas);
}

async function pngOf(canvas: HTMLCanvasElement): Promise<Blob> {
  const blob = await new Promise<Blob | null>((resolve) => {
    canvas.toBlob(resolve, "image/png");
  });
  if (!blob) throw new Error("The browser gave no picture.");
  return blob;
}

const SMALL_PX = 96;

/** What is seen now, very small and grey: to tell whether anything moved. */
export function glimpse({ video }: Shared): Uint8Array {
  const canvas = drawn(video, SMALL_PX, SMALL_PX);
  const pixels = canvas.getContext("2d")?.getImageData(0, 0, SMALL_PX, SMALL_PX).data ?? new Uint8ClampedArray();
  return Uint8Array.from({ length: pixels.length / 4 }, (_, at) => ((pixels[4 * at] ?? 0) + 2 * (pixels[4 * at + 1] ?? 0) + (pixels[4 * at + 2] ?? 0)) >> 2);
}

function drawn(video: HTMLVideoElement, width: number, height: number): HTMLCanvasElement {
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  canvas.getContext("2d", { willReadFrequently: true })?.drawImage(video, 0, 0, width, height);
  return canvas;
}
