import { Download, FileText, Printer } from "lucide-react";
import { useState } from "react";

import { sheetUrl, useHandOver } from "../../api/handover";
import type { HandOver } from "../../api/types";
import { parseLimit } from "../../parts/figures";
import { NumberInput } from "../../parts/fields/NumberInput";
import type { Handed } from "../HandOverPanel";
import { Progress } from "../Progress";
import { useRemembered } from "../remembered";

const PAPERS = [
  { value: "tall", words: "One page as tall as the picture" },
  { value: "A4", words: "A4" },
  { value: "letter", words: "Letter" },
  { value: "own", words: "Own paper" },
];
const USUAL = { paper: "A4", width_mm: 210, height_mm: 297, margin_mm: 12, caption: "{title} – {address} – {date}", numbered: true, limit: "" };

/** One document: tall, or divided over paper; the page's words can be searched in it, and its links work. */
export function PdfWay({ handed }: { handed: Handed }) {
  const [said, say] = useRemembered("pdf", USUAL);
  const [problem, setProblem] = useState("");
  const send = useHandOver();
  const onPaper = said.paper !== "tall";
  const make = () => {
    const limit_bytes = said.limit.trim() ? parseLimit(said.limit) : null;
    if (said.limit.trim() && limit_bytes === null) { setProblem("The limit is a size above 0, like 2 MB."); return; }
    setProblem("");
    const paper = said.paper === "own" ? `${said.width_mm}x${said.height_mm}mm` : said.paper;
    const { margin_mm, caption, numbered } = said;
    send.mutate({ what: handed.what, order: { way: "pdf", paper, margin_mm, caption, numbered, limit_bytes } });
  };
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        make();
      }}
    >
      <div className="grid grid-cols-2 gap-3">
        <label className="grid gap-1">
          Paper
          <select className="select select-sm" value={said.paper} onChange={(event) => say({ paper: event.target.value })}>
            {PAPERS.map((row) => (
              <option key={row.value} value={row.value}>
                {row.words}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1">
          At most
          <input className="input input-sm" placeholder="no limit; or 2 MB" value={said.limit} onChange={(event) => say({ limit: event.target.value })} />
        </label>
      </div>
      {onPaper && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          {said.paper === "own" && (
            <span className="flex items-center gap-1">
              <NumberInput name="Width of the paper in mm" size="w-20" value={said.width_mm} least={50} greatest={2_000} onChange={(width_mm) => width_mm && say({ width_mm })} />
              ×
              <NumberInput name="Height of the paper in mm" size="w-20" value={said.height_mm} least={50} greatest={2_000} onChange={(height_mm) => height_mm && say({ height_mm })} /> mm
            </span>
          )}
          <span className="flex items-center gap-2">
            Margins
            <NumberInput name="Margins in mm" size="w-16" value={said.margin_mm} least={0} greatest={200} onChange={(margin_mm) => margin_mm !== null && say({ margin_mm })} /> mm
          </span>
          <label className="flex items-center gap-2">
            <input type="checkbox" className="checkbox checkbox-xs" checked={said.numbered} onChange={() => say({ numbered: !said.numbered })} />
            page numbers
          </label>
        </div>
      )}
      <label className="grid gap-1">
        Line below each picture
        <input className="input input-sm w-full" maxLength={2_000} value={said.caption} onChange={(event) => say({ caption: event.target.value })} />
        <span className="text-info">Filled in: {"{title} {address} {host} {date} {name}"}</span>
      </label>
      {problem && <p className="text-error">{problem}</p>}
      <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={send.isPending}>
        <FileText size={16} aria-hidden /> Make the PDF
      </button>
      <Progress first={send.data} error={send.error}>
        {(line) => <Document line={line} />}
      </Progress>
    </form>
  );
}

function Document({ line }: { line: HandOver }) {
  const shown = Array.from({ length: line.previews }, (_, at) => at + 1);
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <a className="btn btn-primary btn-sm" href={line.file_url} download>
          <Download size={16} aria-hidden /> Save PDF
        </a>
        <a className="btn btn-sm" href={`${line.file_url}?shown=true`} target="_blank" rel="noopener">
          <Printer size={16} aria-hidden /> Open to print
        </a>
      </div>
      <ol className="flex max-h-72 gap-2 overflow-auto bg-base-200 p-2" aria-label="Pages as they are printed" tabIndex={0}>
        {shown.map((number) => (
          <li key={number} className="shrink-0">
            <img src={sheetUrl(line, number)} alt={`Page ${number}`} className="max-h-60 w-auto border border-base-300 bg-white" />
          </li>
        ))}
      </ol>
      {line.sheets > line.previews && <p className="text-info">The first {line.previews} of {line.sheets} pages.</p>}
    </>
  );
}
