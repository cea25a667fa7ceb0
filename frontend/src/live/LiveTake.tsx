import { useEffect, useState } from "react";

import { useLive } from "./connection";
import type { Choosing } from "./LiveView";

const SECONDS = [0, 3, 5, 10] as const;
const TIMES = [1, 3, 5, 10] as const;
const EVERY_S = 2;

const SAID = {
  nothing: "",
  element: "Press on the element. Turn the wheel up for what it lies in.",
  panel: "Press on the panel that scrolls: it is taken in its whole length. Turn the wheel up for what it lies in.",
  area: "Draw a box on the page.",
} as const;

interface LiveTakeProps {
  choosing: Choosing;
  onChoose: (choosing: Choosing) => void;
  /** Takes the whole page, or what is seen of it. */
  onTake: (extent: "full" | "view") => void;
}

type Going = { extent: "full" | "view"; left_s: number; times: number } | null;

/** What of the page is taken, and when. */
export function LiveTake({ choosing, onChoose, onTake }: LiveTakeProps) {
  const isTaking = useLive((state) => state.progress !== null);
  const [seconds, setSeconds] = useState<number>(0);
  const [times, setTimes] = useState<number>(1);
  const [going, setGoing] = useState<Going>(null);

  useEffect(() => {
    if (!going || isTaking) return;
    const timer = window.setTimeout(
      () => {
        if (going.left_s > 0) {
          setGoing({ ...going, left_s: going.left_s - 1 });
          return;
        }
        onTake(going.extent);
        setGoing(going.times > 1 ? { ...going, times: going.times - 1, left_s: EVERY_S } : null);
      },
      going.left_s > 0 ? 1_000 : 0,
    );
    return () => clearTimeout(timer);
  }, [going, isTaking, onTake]);

  if (going)
    return (
      <section aria-label="Take">
        <p role="status" className="text-lg">
          {going.left_s > 0 ? `In ${going.left_s} s…` : "Now…"} {going.times > 1 && <span className="text-sm">{going.times} more pictures</span>}
        </p>
        <p className="my-2 text-sm">Go on using the page: what is open when the picture is taken stays open in it.</p>
        <button type="button" className="btn btn-sm" onClick={() => setGoing(null)}>
          {going.times > 1 ? "Enough" : "Do not take it"}
        </button>
      </section>
    );
  const begin = (extent: "full" | "view") => () => setGoing({ extent, left_s: seconds, times });
  const pick = (what: Choosing, words: string) => (
    <button type="button" className="btn btn-sm" aria-pressed={choosing === what} disabled={isTaking} onClick={() => onChoose(choosing === what ? "nothing" : what)}>
      {words}
    </button>
  );
  return (
    <section aria-labelledby="take" className="grid gap-2">
      <h2 id="take" className="font-semibold">
        Take
      </h2>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="btn btn-primary" disabled={isTaking} onClick={begin("full")}>
          Whole page
        </button>
        <button type="button" className="btn btn-primary" disabled={isTaking} onClick={begin("view")}>
          What is seen
        </button>
      </div>
      <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2 text-sm">
        <label className="contents">
          When
          <select className="select select-sm w-28" value={seconds} onChange={(event) => setSeconds(Number(event.target.value))}>
            {SECONDS.map((row) => (
              <option key={row} value={row}>
                {row === 0 ? "at once" : `in ${row} s`}
              </option>
            ))}
          </select>
        </label>
        <label className="contents">
          How often
          <select className="select select-sm w-28" value={times} onChange={(event) => setTimes(Number(event.target.value))}>
            {TIMES.map((row) => (
              <option key={row} value={row}>
                {row === 1 ? "once" : `${row} times`}
              </option>
            ))}
          </select>
        </label>
      </div>
      <div className="flex flex-wrap gap-2" role="group" aria-label="A part of it">
        {pick("element", "An element")}
        {pick("panel", "A panel")}
        {pick("area", "An area")}
      </div>
      {choosing !== "nothing" && (
        <p role="status" className="border-l-4 border-accent pl-2 text-sm">
          {SAID[choosing]} Escape ends choosing.
        </p>
      )}
    </section>
  );
}
