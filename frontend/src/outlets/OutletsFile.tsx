import { Download } from "lucide-react";

import { OUTLETS_FILE_URL, useImportOutlets } from "../api/outlets";
import { useNotices } from "../app/notices";
import { showProblem } from "../app/showProblem";
import { OpenFile } from "../parts/OpenFile";

/** Outlets in and out of a file. */
export function OutletsFile({ any }: { any: boolean }) {
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
      <OpenFile words="Import" name="File of outlets" accept="application/json,.json" onFile={(file) => void file.text().then(takeIn)} />
      {any && (
        <a className="btn btn-sm" href={OUTLETS_FILE_URL} download>
          <Download size={15} aria-hidden /> Save as a file
        </a>
      )}
    </span>
  );
}
