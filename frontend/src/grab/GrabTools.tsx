import { useCallback, useEffect, useState } from "react";

import { useAction } from "../app/actions/useAction";
import { Follower } from "./following";
import { glimpse, type Shared } from "./sharing";
import { every } from "./ticking";
import type { Grabs } from "./useGrabs";

const SECONDS = [3, 5, 10] as const;
const LOOK_MS = 150;

type Going = { kind: "counting"; left: number } | { kind: "series"; seconds: number } | { kind: "scrolling" } | null;

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

  useEffect(() => {
    if (going === null) return;
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
          {going.kind === "scrolling" && "Scroll the window slowly from top to bottom: a picture is grabbed whenever it has moved."}
        </p>
        <button type="button" className="btn btn-primary" onClick={() => setGoing(null)}>
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
    </div>
  );
}
