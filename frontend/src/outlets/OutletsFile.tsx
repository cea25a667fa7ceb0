import { Download, Upload } from "lucide-react";
import { useRef } from "react";

import { OUTLETS_FILE_URL, useImportOutlets } from "../api/outlets";
import { useNotices } from "../app/notices";
import { showProblem } from "../app/showProblem";

/** Outlets in and out of a file. */
export function OutletsFile({ any }: { any: boolean }) {
  const file = useRef<HTMLInputElement>(null);
  const take = useImportOutlets();
  const show = useNotices((state) => state.show);
  const takeIn = (text: string) =>
    take.mutate(text, {
      onSuccess: ({ added, changed }) =>
        show({ tone: "info", text: `Taken in: ${[...added, ...changed].join(", ") || "nothing, the file is empty"}.` }),
      onError: showProblem,
    });
  return (
    <span className="ml-auto flex gap-2">
      <button type="button" className="btn btn-sm" onClick={() => file.current?.click()}>
        <Upload size={15} aria-hidden /> Import
      </button>
      <input
        ref={file}
        type="file"
        accept="application/json,.json"
        className="sr-only"
        tabIndex={-1}
        aria-label="File of outlets"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = "";
          if (chosen) void chosen.text().then(takeIn);
        }}
      />
      {any && (
        <a className="btn btn-sm" href={OUTLETS_FILE_URL} download>
          <Download size={15} aria-hidden /> Save as a file
        </a>
      )}
    </span>
  );
}
