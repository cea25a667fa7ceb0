import { FlaskConical, Play } from "lucide-react";
import { useState } from "react";
import { useNavigate } from "react-router";

import { sendForm } from "../api/client";
import { useStartRun } from "../api/routines";
import { useSweeps } from "../api/sweeps";
import type { Capture, Routine, RunIn } from "../api/types";
import { showProblem } from "../app/showProblem";
import { splitAddresses } from "../gather/addresses";
import { Pick } from "../parts/fields/Pick";
import { counted } from "../parts/figures";
import { Panel } from "../parts/Panel";
import { useChosen } from "../shelf/choosing/chosen";
import { Answers, type Values } from "./Answers";

type Over = "sample" | "chosen" | "pages" | "pictures" | "sweep";

/** Over what a routine is run, what it asks, and whether it is tried first. */
export function RunPanel({ routine, sampleId, disabled = false }: { routine: Routine; sampleId: number | null; disabled?: boolean }) {
  return (
    <Panel name={`Run ${routine.name}`} size="w-[26rem]" button={`btn-primary ${disabled ? "btn-disabled" : ""}`} label={<><Play size={15} aria-hidden /> Run</>}>
      <RunForm routine={routine} sampleId={sampleId} />
    </Panel>
  );
}

function RunForm({ routine, sampleId }: { routine: Routine; sampleId: number | null }) {
  const chosen = useChosen((state) => state.ids);
  const [over, setOver] = useState<Over>(chosen.size > 0 ? "chosen" : sampleId !== null ? "sample" : "pages");
  const [text, setText] = useState("");
  const [files, setFiles] = useState<readonly File[]>([]);
  const [sending, setSending] = useState(0);
  const [sweepId, setSweepId] = useState<number | null>(null);
  const [values, setValues] = useState<Values>({});
  const sweeps = useSweeps();
  const start = useStartRun();
  const navigate = useNavigate();
  const addresses = splitAddresses(text);
  const options: Partial<Record<Over, string>> = {
    ...(chosen.size > 0 && { chosen: `the ${counted(chosen.size, "capture")} chosen on the shelf` }),
    ...(sampleId !== null && { sample: "the sample" }),
    pages: "pages: their addresses",
    pictures: "pictures of this computer",
    sweep: "each page of a sweep as it arrives",
  };
  const asked = (): RunIn | null => {
    if (over === "pictures") return files.length > 0 ? { captures: [] } : null;
    if (over === "chosen") return { captures: [...chosen] };
    if (over === "sample") return sampleId === null ? null : { captures: [sampleId] };
    if (over === "pages") return addresses.length > 0 ? { addresses } : null;
    return sweepId === null ? null : { sweep_id: sweepId };
  };
  const what = asked();
  const run = async (trial: boolean) => {
    if (!what) return;
    try {
      const captures = over === "pictures" ? await sentPictures(files, setSending) : what.captures;
      const all: RunIn = { ...what, ...(captures && { captures }), values };
      const made = await start.mutateAsync({ routineId: routine.id, ...all, trial });
      void navigate(`/runs/${made.id}`, { state: trial ? all : undefined });
    } catch (error) {
      setSending(0);
      showProblem(error);
    }
  };
  const busy = start.isPending || sending > 0;
  return (
    <div className="grid gap-4">
      <div>
        <p className="mb-1 font-semibold">Over</p>
        <Pick name="over" value={over} options={options as Record<Over, string>} onPick={setOver} />
      </div>
      {over === "pages" && (
        <label className="grid gap-1">
          Addresses, one a line
          <textarea className="textarea min-h-0 w-full" rows={3} spellCheck={false} value={text} onChange={(event) => setText(event.target.value)} />
        </label>
      )}
      {over === "pictures" && (
        <label className="grid gap-1">
          PNG, JPEG, WebP, AVIF, GIF or TIFF; they come onto the shelf
          <input type="file" multiple accept="image/*" className="file-input file-input-sm w-full" onChange={(event) => setFiles([...(event.target.files ?? [])])} />
          {sending > 0 && (
            <span role="status">
              Sending <span className="figure">{sending}</span> of {counted(files.length, "picture")}…
            </span>
          )}
        </label>
      )}
      {over === "sweep" && (
        <label className="grid gap-1">
          Which sweep
          <select className="select select-sm w-full" value={sweepId ?? ""} onChange={(event) => setSweepId(Number(event.target.value) || null)}>
            <option value="">Choose one</option>
            {sweeps.data?.map((sweep) => (
              <option key={sweep.id} value={sweep.id}>
                {sweep.name}
              </option>
            ))}
          </select>
          <span>When the sweep is taken again, also at its set times, the routine runs over it again.</span>
        </label>
      )}
      <Answers questions={routine.questions} values={values} onChange={setValues} />
      <div className="flex gap-2">
        <button type="button" className="btn btn-sm" disabled={!what || over === "pages" || busy} title={over === "pages" ? "Pages are tried once they are taken" : "Shows what three of them would come to; nothing is kept"} onClick={() => void run(true)}>
          <FlaskConical size={15} aria-hidden /> Try on three
        </button>
        <button type="button" className="btn btn-primary btn-sm" disabled={!what || busy} onClick={() => void run(false)}>
          <Play size={15} aria-hidden /> Run
        </button>
      </div>
    </div>
  );
}

/** Pictures put onto the shelf, one after the other; gives their numbers. */
async function sentPictures(files: readonly File[], onSending: (number: number) => void): Promise<number[]> {
  const ids = [];
  for (const [index, file] of files.entries()) {
    onSending(index + 1);
    const form = new FormData();
    form.append("picture", file, file.name);
    const { id } = await sendForm<Capture>("/api/pictures", form);
    ids.push(id);
  }
  return ids;
}
