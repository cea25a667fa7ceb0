import { useCallback, useEffect, useState } from "react";

import { useAction } from "../app/actions/useAction";
import { Follower } from "./following";
import { MOST_CLIP_S } from "./recording";
import { glimpse, type Shared } from "./sharing";
import { every } from "./ticking";
import { useClipGrab } from "./useClipGrab";
import type { Grabs } from "./useGrabs";

const SECONDS = [3, 5, 10] as const;
const LOOK_MS = 150;

type Going = { kind: "counting"; left: number } | { kind: "series"; seconds: number } | { kind: "scrolling" } | { kind: "clip" } | null;

interface GrabToolsProps {
  shared: Shared;
  grabs: Grabs;
  /** Told when a window begins to be followed while it is scrolled, and when something else is grabbed. */
  onScrolling: (isScrolled: boolean) => void;
}

/** When pictures are grabbed. */
export function GrabTools({ shared, grabs, onScrolling }: GrabToolsProps) {
  const [seconds, setSeconds] = useState<number>(SECONDS[0]);
  const [going, setGoing] = useState<Going>(null);
  const { grab: grabOf } = grabs;
  const grab = useCallback(() => grabOf(shared), [grabOf, shared]);
  useAction("grab", grab, {}, [grab]);

  const stop = useCallback(() => setGoing(null), []);
  const clipSeconds = useClipGrab(shared, going?.kind === "clip", stop);

  useEffect(() => {
    if (going === null || going.kind === "clip") return;
    const follower = new Follower();
    const ms = going.kind === "scrolling" ? LOOK_MS : going.kind === "series" ? going.seconds * 1_000 : 1_000;
    return every(ms, () => {
      if (going.kind === "scrolling") {
        if (follower.isDue(glimpse(shared), performance.now())) grab();
      } else if (going.kind === "series") grab();
      else if (going.left > 1) setGoing({ kind: "counting", left: going.left - 1 });
      else {
        grab();
        setGoing(null);
      }
    });
  }, [going, grab, shared]);

  if (going)
    return (
      <div className="self-start">
        <p role="status" className="mb-3 text-lg">
          {going.kind === "counting" && `In ${going.left} s…`}
          {going.kind === "series" && `One picture every ${going.seconds} s.`}
          {going.kind === "clip" && `${clipSeconds} s of a clip, which lasts at most ${MOST_CLIP_S} s.`}
          {going.kind === "scrolling" && "Scroll the window slowly from top to bottom: a picture is grabbed whenever it has moved."}
        </p>
        <button type="button" className="btn btn-primary" onClick={stop}>
          {going.kind === "counting" ? "Do not grab" : "Enough"}
        </button>
      </div>
    );
  return (
    <div className="grid gap-4 self-start">
      <p className="flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-primary" onClick={grab}>
          Grab now
        </button>
        <label className="ml-4 flex items-center gap-2">
          <span>Seconds</span>
          <select className="select select-sm w-20" value={seconds} onChange={(event) => setSeconds(Number(event.target.value))}>
            {SECONDS.map((row) => (
              <option key={row}>{row}</option>
            ))}
          </select>
        </label>
        <button type="button" className="btn btn-sm" onClick={() => setGoing({ kind: "counting", left: seconds })}>
          Grab in {seconds} s
        </button>
        <button type="button" className="btn btn-sm" onClick={() => {
            onScrolling(false);
            setGoing({ kind: "series", seconds });
          }}>
          Grab every {seconds} s
        </button>
      </p>
      <p>
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => {
            grabs.clear();
            onScrolling(true);
            setGoing({ kind: "scrolling" });
          }}
        >
          Grab while I scroll
        </button>
        <span className="ml-3 text-sm">Then join what was grabbed into one tall picture.</span>
      </p>
      <p>
        <button type="button" className="btn btn-sm" onClick={() => setGoing({ kind: "clip" })}>
          Take a clip
        </button>
        <span className="ml-3 text-sm">A few seconds of it, as a file that moves.</span>
      </p>
    </div>
  );
}
