import { useEffect, useRef, useState } from "react";

import type { ClipOutput } from "../../api/types";
import { openedFile, type OpenedFile } from "./openedFile";

interface BesideItProps {
  output: ClipOutput;
  momentMs: number;
  width: number;
  height: number;
}

/** A file at the moment that the frames beside it are at, as large as they are. */
export function BesideIt({ output, momentMs, width, height }: BesideItProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [file, setFile] = useState<OpenedFile | "none" | null>(null);

  useEffect(() => {
    let isGone = false;
    let opened: OpenedFile | null = null;
    openedFile(output).then(
      (found) => {
        opened = found;
        if (isGone) found?.close();
        else setFile(found ?? "none");
      },
      () => !isGone && setFile("none"),
    );
    return () => {
      isGone = true;
      opened?.close();
    };
  }, [output]);

  useEffect(() => {
    // A picture that cannot be drawn just now is drawn with the next moment.
    if (file && file !== "none" && canvas.current) file.draw(canvas.current, momentMs).catch(() => undefined);
  }, [file, momentMs]);

  if (file === "none") return <p className="max-w-60 text-sm">This browser cannot take the file apart: show it by itself, under its figures.</p>;
  return <canvas ref={canvas} width={width} height={height} className="max-h-[48dvh] max-w-full border border-base-300 bg-white" role="img" aria-label="The file at the same moment" data-beside={output.id} />;
}
