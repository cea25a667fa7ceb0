import { useCallback, useMemo, useRef, useState } from "react";
import { Link, useParams } from "react-router";

import { asProblem } from "../api/client";
import { type ClipChange, useChangeClip, useClip, useStopClip } from "../api/clips";
import type { Clip, ClipDocument } from "../api/types";
import { NotHere } from "../app/NotHere";
import { showProblem } from "../app/showProblem";
import { counted, formatSize } from "../parts/figures";
import { JobProgress } from "../parts/JobProgress";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { ClipPlayer } from "./ClipPlayer";
import { ClipFiles } from "./files/ClipFiles";
import { FrameHandles } from "./frames/FrameHandles";
import { FrameStrip } from "./frames/FrameStrip";
import { ALL_FRAMES, drawnOn, inTheMiddle, type Pen, type Span, spanWords } from "./frames/onFrames";
import { OnTheFrames } from "./frames/OnTheFrames";
import { PenTools } from "./frames/PenTools";
import { isOn, type Thing } from "./frames/takenUp";
import { HowItPlays } from "./HowItPlays";
import { lengthMs, played } from "./playing";

/** One clip: how it plays, its frames, and the files that are made of it. */
export function ClipPage() {
  const clipId = Number(useParams().clipId);
  const clip = useClip(clipId);
  useTitle(clip.data?.name ?? "Clip");
  if (clip.isError) return asProblem(clip.error).status === 404 ? <NotHere /> : <ProblemNote sentence={asProblem(clip.error).sentence} hint={asProblem(clip.error).hint} />;
  if (!clip.data) return <p className="p-8">Fetching the clip…</p>;
  return clip.data.frame_count > 0 ? <Taken key={clipId} clip={clip.data} /> : <NotTaken clip={clip.data} />;
}

function NotTaken({ clip }: { clip: Clip }) {
  const stop = useStopClip(clip.id);
  const isUnderWay = clip.job.state === "queued" || clip.job.state === "running";
  return (
    <main className="mx-auto grid max-w-2xl gap-4 px-6 pt-10" data-clip={clip.id} data-state={clip.job.state}>
      <h1 className="text-xl font-semibold break-words">{clip.name}</h1>
      {clip.job.error && <ProblemNote sentence={clip.job.error.sentence} hint={clip.job.error.hint} />}
      {clip.job.state === "stopped" && <p>Taking it was stopped.</p>}
      {isUnderWay && (
        <>
          <JobProgress job={clip.job} words={clip.job.stage === "taking" ? "Taking frames" : undefined} />
          <button type="button" className="btn btn-sm justify-self-start" onClick={() => stop.mutate(undefined, { onError: showProblem })}>
            Stop
          </button>
        </>
      )}
      {clip.address && (
        <Link to={`/clips?address=${encodeURIComponent(clip.address)}`} className="link">
          Take another clip of this page
        </Link>
      )}
    </main>
  );
}

function Taken({ clip }: { clip: Clip }) {
  const change = useChangeClip(clip.id);
  const document = clip.document as ClipDocument;
  const shown = useMemo(() => played(clip.frame_count, clip.rate_fps, document), [clip.frame_count, clip.rate_fps, document]);
  const [frame, setFrame] = useState(0);
  const [range, setRange] = useState<Span | null>(null);
  const [pen, setPen] = useState<Pen | null>(null);
  const [inHand, setInHand] = useState<Thing | null>(null);
  const [layer, setLayer] = useState<HTMLDivElement | null>(null);
  const hasDrawn = useRef(false);
  const [compared, setCompared] = useState<number | null>(null);
  const beside = clip.outputs.find((output) => output.id === compared && output.bytes > 0);
  // A file is compared with the frames as they were seen when it was asked for.
  const madeOf = (beside?.document ?? document) as ClipDocument;
  const comparedWith = useMemo(() => played(clip.frame_count, clip.rate_fps, madeOf), [clip.frame_count, clip.rate_fps, madeOf]);
  const put = (more: ClipChange) => change(more, showProblem);
  const drawn = (more: Partial<ClipDocument>) => {
    put(more);
    setPen(null);
    hasDrawn.current = true;
    if (!more.box && range && !isOn(range, frame)) setFrame(range.first); // what was drawn is to be seen
    if (more.hidden) setInHand({ of: "hidden", at: more.hidden.length - 1 });
    if (more.marks) setInHand({ of: "marks", at: more.marks.length - 1 });
  };
  // What was just drawn has the keys, so that it can be moved at once.
  const onLayer = useCallback((node: HTMLDivElement | null) => {
    setLayer(node);
    if (node && hasDrawn.current) node.focus({ preventScroll: true });
    if (node) hasDrawn.current = false;
  }, []);
  return (
    <main className="mx-auto grid max-w-[110rem] grid-cols-[minmax(0,1fr)] gap-x-6 px-4 pt-4 pb-12 lg:grid-cols-[minmax(0,1fr)_22rem]" data-clip={clip.id} data-state={clip.job.state}>
      <header className="mb-3 flex flex-wrap items-baseline gap-x-4 lg:col-span-2">
        <h1 className="text-xl font-semibold break-words">{clip.name}</h1>
        <p className="figure text-sm" data-length>
          {formatSize(clip.width_px, clip.height_px)} · {counted(clip.frame_count - document.dropped.length, "frame")} of {clip.frame_count} · {(lengthMs(shown) / 1_000).toFixed(1)} s
        </p>
        <Link to="/clips" className="link ml-auto text-sm">
          All clips
        </Link>
      </header>
      <div className="min-w-0">
        {clip.warnings.map((words) => (
          <p key={words} className="mb-2 border-l-4 border-warning bg-base-200 px-3 py-1 text-sm">
            {words}
          </p>
        ))}
        {!beside && (
          <PenTools
            pen={pen}
            where={spanWords(range ?? ALL_FRAMES)}
            onPick={setPen}
            onPut={(held) => {
              const [from, to] = inTheMiddle(clip);
              const more = drawnOn(document, held, from, to, clip, range ?? ALL_FRAMES);
              if (more) drawn(more);
            }}
          />
        )}
        <ClipPlayer
          clip={clip}
          document={madeOf}
          shown={comparedWith}
          frame={frame}
          onFrame={setFrame}
          beside={beside}
          pen={beside ? null : pen}
          onDrawn={(from, to) => {
            const more = pen && drawnOn(document, pen, from, to, clip, range ?? ALL_FRAMES);
            if (more) drawn(more);
          }}
          over={beside ? undefined : (box) => <FrameHandles clip={clip} document={document} frame={frame} box={box} inHand={inHand} onTake={setInHand} onChange={put} layer={layer} onLayer={onLayer} />}
        />
        <FrameStrip clip={clip} document={document} frame={frame} onFrame={setFrame} onRange={setRange} onDrop={(dropped) => put({ dropped })} />
        <OnTheFrames
          document={document}
          range={range}
          inHand={inHand}
          onTake={(thing) => {
            const row = document[thing.of][thing.at];
            if (!row) return;
            setPen(null);
            setInHand(thing);
            if (!isOn(row, frame)) setFrame(row.first);
            layer?.focus();
          }}
          onChange={(more) => {
            // Those after what was removed have another place now.
            if ((more.hidden ?? document.hidden).length + (more.marks ?? document.marks).length < document.hidden.length + document.marks.length) setInHand(null);
            put(more);
          }}
        />
      </div>
      <div className="grid content-start gap-6">
        <HowItPlays clip={clip} document={document} onChange={put} />
        <ClipFiles clip={clip} pictures={shown.length} compared={compared} onCompare={setCompared} />
      </div>
    </main>
  );
}
