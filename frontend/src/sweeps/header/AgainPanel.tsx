import { CalendarClock } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";

import { asProblem } from "../../api/client";
import { useSchedule, useSweepAgain, useTimes } from "../../api/sweeps";
import type { Sweep } from "../../api/types";
import { formatTime } from "../../parts/figures";
import { Panel } from "../../parts/Panel";
import { Pick } from "../../parts/fields/Pick";
import { cronOf, FIRST_TIMES, type Times, timesOf, WEEKDAYS } from "./times";

const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The same pages once more: now, or by itself at set times. */
export function AgainPanel({ sweep }: { sweep: Sweep }) {
  const again = useSweepAgain();
  const navigate = useNavigate();
  // Here, and not in what opens, so that what was typed is there again when it opens again.
  const [times, setTimes] = useState(sweep.schedule ? timesOf(sweep.schedule.cron) : FIRST_TIMES);
  return (
    <Panel name="Take all again" label={<><CalendarClock size={16} aria-hidden /> Again</>}>
      <p>
        {sweep.site ? `Asks ${sweep.site.replace(/^https?:\/\//, "")} what it lists by then, ` : "Takes the same pages, "}
        and compares each page with this time.
      </p>
      <button
        type="button"
        className="btn btn-sm btn-primary btn-block mt-3"
        disabled={again.isPending || !sweep.finished_at}
        onClick={() => void again.mutateAsync(sweep.id).then((next) => navigate(`/sweeps/${next.id}`)).catch(() => undefined)}
      >
        {again.isPending ? "Asking…" : "Take all again now"}
      </button>
      {!sweep.finished_at && <p className="mt-1 text-xs">when this sweep has ended</p>}
      {again.isError && <p className="mt-1 text-error">{asProblem(again.error).sentence}</p>}
      <SetTimes sweep={sweep} times={times} onTimes={setTimes} />
    </Panel>
  );
}

interface SetTimesProps {
  sweep: Sweep;
  times: Times;
  onTimes: (times: Times) => void;
}

function SetTimes({ sweep, times, onTimes }: SetTimesProps) {
  const schedule = useSchedule(sweep.id);
  const order = { cron: cronOf(times), time_zone: sweep.schedule?.time_zone ?? ZONE };
  const next = useTimes(order);
  return (
    <form
      className="mt-4 grid gap-2 border-t border-base-300 pt-3"
      aria-label="Set times"
      onSubmit={(event) => {
        event.preventDefault();
        schedule.mutate(order);
      }}
    >
      <p className="font-semibold">By itself</p>
      <Pick
        name="how-often"
        options={{ day: "every day", week: "every week", cron: "by a cron line" }}
        value={times.way}
        onPick={(way) => onTimes({ ...times, way })}
      />
      {times.way === "cron" ? (
        <input className="input input-sm figure w-full" aria-label="Cron line" spellCheck={false} value={times.cron} onChange={(event) => onTimes({ ...times, cron: event.target.value })} />
      ) : (
        <p className="flex items-center gap-2">
          {times.way === "week" && (
            <select className="select select-sm w-32" aria-label="Day of the week" value={times.weekday} onChange={(event) => onTimes({ ...times, weekday: Number(event.target.value) })}>
              {WEEKDAYS.map((day, number) => (
                <option key={day} value={number}>
                  {day}
                </option>
              ))}
            </select>
          )}
          at
          <input type="time" className="input input-sm figure w-28" aria-label="Time" required value={times.at} onChange={(event) => onTimes({ ...times, at: event.target.value })} />
        </p>
      )}
      {next.isError ? (
        <p className="text-error">
          {asProblem(next.error).sentence} {asProblem(next.error).hint}
        </p>
      ) : (
        <p className="text-xs">next {next.data?.times.slice(0, 2).map(formatTime).join(", then ")}</p>
      )}
      {sweep.schedule?.problem && <p className="text-error">The last time did not begin: {sweep.schedule.problem}</p>}
      <p className="flex gap-2">
        <button type="submit" className="btn btn-sm" disabled={next.isError || schedule.isPending}>
          {sweep.schedule ? "Change the times" : "Set the times"}
        </button>
        {sweep.schedule && (
          <button type="button" className="btn btn-sm" onClick={() => schedule.mutate(null)}>
            Turn schedule off
          </button>
        )}
      </p>
      {sweep.schedule && <p role="status">Set: next {formatTime(sweep.schedule.next_at)}</p>}
      {schedule.isError && <p className="text-error">{asProblem(schedule.error).sentence}</p>}
    </form>
  );
}
