import { type SubmitEvent, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";

import { asProblem } from "../api/client";
import { useTakeClip } from "../api/clips";
import { useScreens } from "../api/screens";
import type { ClipIn } from "../api/types";
import { StepsEditor } from "../gather/taking/StepsEditor";
import { useTakeSettings } from "../gather/taking/takeSettings";
import { NumberInput } from "../parts/fields/NumberInput";
import { Pick } from "../parts/fields/Pick";
import { screenWords } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";

const KINDS = { scroll: "scrolling through it", steps: "steps as they are done", watch: "what moves by itself" } as const;
type Kind = keyof typeof KINDS;

/** Which page, and what of it is seen. */
export function TakeClip() {
  const navigate = useNavigate();
  const take = useTakeClip();
  const { data: screens } = useScreens();
  const { settings } = useTakeSettings();
  const [parameters] = useSearchParams();
  const [address, setAddress] = useState(parameters.get("address") ?? "");
  const [screenName, setScreenName] = useState("");
  const [kind, setKind] = useState<Kind>("scroll");
  const [more, setMore] = useState({ from_px: 0, to_px: null as number | null, speed_px_s: null as number | null, pause_s: 0, seconds: 5, element: "", rate_fps: 15 });
  const screen = screens?.find((row) => row.name === screenName) ?? screens?.[0];
  const put = (change: Partial<typeof more>) => setMore({ ...more, ...change });

  const submit = (event: SubmitEvent) => {
    event.preventDefault();
    if (!screen) return;
    const { width_px, height_px, scale, touch } = screen;
    const body: ClipIn = {
      address,
      screen: { width_px, height_px, scale, touch },
      kind,
      ...more,
      steps: kind === "steps" ? settings.steps : [],
      seconds: kind === "scroll" ? 0 : kind === "steps" ? 1 : more.seconds,
    };
    take.mutate(body, { onSuccess: ({ id }) => void navigate(`/clips/${id}`) });
  };
  return (
    <form className="grid gap-4 rounded-box border border-base-300 p-4" noValidate onSubmit={submit}>
      <div className="flex flex-wrap gap-2">
        <input className="input min-w-60 flex-1" aria-label="Address of the page" placeholder="Address of the page" value={address} onChange={(event) => setAddress(event.target.value)} />
        <select className="select w-48" aria-label="Screen" value={screen?.name ?? ""} onChange={(event) => setScreenName(event.target.value)}>
          {screens?.map((row) => (
            <option key={row.name} value={row.name}>
              {row.name} {screenWords(row)}
            </option>
          ))}
        </select>
        <button type="submit" className="btn btn-primary" disabled={take.isPending || !screen}>
          Take clip
        </button>
      </div>
      {take.isError && <ProblemNote sentence={asProblem(take.error).sentence} hint={asProblem(take.error).hint} />}
      <Pick name="kind" value={kind} options={KINDS} onPick={setKind} />
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 text-sm">
        {kind === "scroll" && (
          <>
            <Field words="from" unit="px">
              <NumberInput name="Scroll from, px" value={more.from_px} least={0} size="w-20" onCommit={(from_px) => put({ from_px: from_px ?? 0 })} />
            </Field>
            <Field words="to" unit="px">
              <NumberInput name="Scroll to, px" value={more.to_px} least={0} size="w-20" placeholder="its end" onCommit={(to_px) => put({ to_px })} />
            </Field>
            <Field words="by" unit="px a second">
              <NumberInput name="Speed, px a second" value={more.speed_px_s} least={20} greatest={20_000} step={50} size="w-20" placeholder="by itself" onCommit={(speed_px_s) => put({ speed_px_s })} />
            </Field>
            <Field words="staying" unit="s at headings">
              <NumberInput name="Pause at headings, s" value={more.pause_s} least={0} greatest={10} step={0.5} onCommit={(pause_s) => put({ pause_s: pause_s ?? 0 })} />
            </Field>
          </>
        )}
        {kind === "watch" && (
          <Field words="for" unit="s">
            <NumberInput name="Seconds" value={more.seconds} least={0.5} greatest={60} step={0.5} onCommit={(seconds) => put({ seconds: seconds ?? 5 })} />
          </Field>
        )}
        {kind !== "scroll" && (
          <label className="flex items-center gap-2">
            of
            <input className="input input-xs figure w-52" aria-label="Element that is seen" placeholder="the window, or #element" value={more.element} onChange={(event) => put({ element: event.target.value })} />
          </label>
        )}
        <Field words="with" unit="frames a second">
          <NumberInput name="Frames a second" value={more.rate_fps} least={1} greatest={30} onCommit={(rate_fps) => put({ rate_fps: rate_fps ?? 15 })} />
        </Field>
      </div>
      {kind === "steps" && <StepsEditor />}
    </form>
  );
}

function Field({ words, unit, children }: { words: string; unit: string; children: React.ReactNode }) {
  return (
    <span className="flex items-center gap-2">
      {words}
      {children}
      {unit}
    </span>
  );
}
