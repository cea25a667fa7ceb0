import { type SubmitEvent, useState } from "react";

import { asProblem } from "../../api/client";
import { useMakeClip } from "../../api/clips";
import type { Clip, ClipOutputIn } from "../../api/types";
import { NumberInput } from "../../parts/fields/NumberInput";
import { parseLimit } from "../../parts/figures";
import { ProblemNote } from "../../parts/ProblemNote";
import { ClipFileRow } from "./ClipFileRow";

const FORMATS = { webp: "WebP", gif: "GIF", avif: "AVIF", mp4: "MP4", webm: "WebM" } as const;

interface ClipFilesProps {
  clip: Clip;
  pictures: number;
  /** The file that is played beside the frames. */
  compared: number | null;
  onCompare: (outputId: number | null) => void;
}

/** The files that were made, and one more. */
export function ClipFiles({ clip, pictures, compared, onCompare }: ClipFilesProps) {
  return (
    <section aria-labelledby="clip-files">
      <h2 id="clip-files" className="mb-2 border-b border-base-300 pb-1 font-semibold">
        Files
      </h2>
      <MakeClip clip={clip} />
      <ul className="mt-3">
        {clip.outputs.map((output) => (
          <ClipFileRow key={output.id} clip={clip} output={output} pictures={pictures} isCompared={output.id === compared} onCompare={(is) => onCompare(is ? output.id : null)} />
        ))}
      </ul>
    </section>
  );
}

function MakeClip({ clip }: { clip: Clip }) {
  const make = useMakeClip(clip.id);
  const [format, setFormat] = useState<ClipOutputIn["format"]>("webp");
  const [limit, setLimit] = useState("500");
  const [width_px, setWidth] = useState<number | null>(Math.min(640, clip.width_px));
  const [palette, setPalette] = useState<"all" | "each">("all");
  const limit_bytes = parseLimit(limit);
  const submit = (event: SubmitEvent) => {
    event.preventDefault();
    if (limit_bytes !== null) make.mutate({ format, limit_bytes, width_px, keeps_width: false, palette });
  };
  return (
    <form className="grid gap-2 text-sm" noValidate onSubmit={submit}>
      <div className="flex flex-wrap items-center gap-2">
        <select className="select select-xs w-20" aria-label="Format" value={format} onChange={(event) => setFormat(event.target.value as ClipOutputIn["format"])}>
          {Object.entries(FORMATS).map(([name, words]) => (
            <option key={name} value={name}>
              {words}
            </option>
          ))}
        </select>
        under
        <input className="input input-xs figure w-16" aria-label="Limit of the clip, kB" value={limit} onChange={(event) => setLimit(event.target.value)} aria-invalid={limit_bytes === null} />
        kB,
        <NumberInput name="Width at most, px" value={width_px} least={64} greatest={2_560} onCommit={setWidth} />
        px at most
      </div>
      {format === "gif" && (
        <label className="flex items-center gap-2">
          <input type="checkbox" className="checkbox checkbox-xs" checked={palette === "each"} onChange={(event) => setPalette(event.target.checked ? "each" : "all")} />A palette for each frame
        </label>
      )}
      <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={limit_bytes === null || make.isPending}>
        Make file
      </button>
      {make.isError && <ProblemNote sentence={asProblem(make.error).sentence} hint={asProblem(make.error).hint} />}
    </form>
  );
}
