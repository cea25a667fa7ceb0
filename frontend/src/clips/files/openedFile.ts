import { clipFileUrl } from "../../api/clips";
import type { ClipOutput } from "../../api/types";

/** A file whose pictures can be asked for by their moment. */
export interface OpenedFile {
  /** Draws what is seen at a moment over all of a canvas. What comes late is drawn late, but never over what was asked for after it. */
  draw: (canvas: HTMLCanvasElement, momentMs: number) => Promise<void>;
  close: () => void;
}

/** Opens a clip's file to be looked at moment by moment; null where this browser cannot take it apart. */
export async function openedFile(output: ClipOutput): Promise<OpenedFile | null> {
  if (output.format === "mp4" || output.format === "webm") return openedVideo(clipFileUrl(output.id));
  return "ImageDecoder" in window ? openedPictures(clipFileUrl(output.id), `image/${output.format}`) : null;
}

async function openedVideo(url: string): Promise<OpenedFile> {
  const video = document.createElement("video");
  video.muted = true;
  video.preload = "auto";
  video.src = url;
  await new Promise((resolve, reject) => {
    video.addEventListener("loadeddata", resolve, { once: true });
    video.addEventListener("error", () => reject(new Error("The film cannot be shown.")), { once: true });
  });
  const turn = inOrder();
  return {
    draw: async (canvas, momentMs) => {
      const isNewest = turn();
      const sought = new Promise((resolve) => video.addEventListener("seeked", resolve, { once: true }));
      video.currentTime = momentMs / 1_000;
      await sought;
      if (isNewest()) fill(canvas, video);
    },
    close: () => video.removeAttribute("src"),
  };
}

async function openedPictures(url: string, type: string): Promise<OpenedFile> {
  const data = await (await fetch(url)).arrayBuffer();
  const decoder = new ImageDecoder({ data, type });
  await decoder.tracks.ready;
  await decoder.completed;
  const count = decoder.tracks.selectedTrack?.frameCount ?? 0;
  const startsMs: number[] = [];
  for (let frameIndex = 0; frameIndex < count; frameIndex += 1) {
    const { image } = await decoder.decode({ frameIndex });
    startsMs.push(image.timestamp / 1_000);
    image.close();
  }
  const turn = inOrder();
  return {
    draw: async (canvas, momentMs) => {
      const isNewest = turn();
      const later = startsMs.findIndex((startMs) => startMs > momentMs);
      const { image } = await decoder.decode({ frameIndex: later < 0 ? count - 1 : Math.max(0, later - 1) });
      if (isNewest()) fill(canvas, image);
      image.close();
    },
    close: () => decoder.close(),
  };
}

/** Calls in order: each can ask whether none after it was there before it. */
function inOrder(): () => () => boolean {
  let calls = 0;
  let newest = 0;
  return () => {
    const call = (calls += 1);
    return () => {
      const isNewest = call > newest;
      newest = Math.max(newest, call);
      return isNewest;
    };
  };
}

function fill(canvas: HTMLCanvasElement, picture: CanvasImageSource): void {
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  canvas.dataset.draws = String(Number(canvas.dataset.draws ?? 0) + 1);
}
