import type { DragEvent } from "react";

import { outputFileUrl } from "../../api/pictures";
import type { Output } from "../../api/types";

const MEDIA_TYPES: Record<string, string> = { jpg: "image/jpeg", png: "image/png", webp: "image/webp", avif: "image/avif", gif: "image/gif", zip: "application/zip" };

/** What a drag of a row's file out of the window offers: the file under its name, and its address. */
export function offered(output: Pick<Output, "id" | "file_key" | "file_name">, origin: string): { download: string; address: string } {
  const address = `${origin}${outputFileUrl(output)}`;
  const media = MEDIA_TYPES[output.file_name.split(".").at(-1) ?? ""] ?? "application/octet-stream";
  return { download: `${media}:${output.file_name}:${address}`, address };
}

/** Lets a file be dragged to the desktop or into another program. */
export function draggedOut(output: Output) {
  return (event: DragEvent) => {
    const { download, address } = offered(output, window.location.origin);
    // Browsers that know no such drag offer the address.
    event.dataTransfer.setData("DownloadURL", download);
    event.dataTransfer.setData("text/uri-list", address);
    event.dataTransfer.effectAllowed = "copy";
  };
}
