import { ListOrdered } from "lucide-react";
import { useState } from "react";

import { Panel } from "../../parts/Panel";
import { useCut } from "../benchContext";
import { captionLines } from "./handling/geometry";

/** The captions of the numbers, as a list for the text that goes with the picture. */
export function Captions() {
  const marks = useCut((state) => state.document.marks);
  const [copied, setCopied] = useState<"" | "yes" | "no">("");
  const lines = captionLines(marks);
  const without = marks.filter((mark) => mark.kind === "badge" && !mark.caption).length;
  if (!marks.some((mark) => mark.kind === "badge")) return null;
  const copy = () => navigator.clipboard.writeText(lines.join("\n")).then(() => setCopied("yes"), () => setCopied("no"));
  return (
    <Panel label={<ListOrdered size={16} aria-hidden />} name="Captions of the numbers" button="btn-ghost btn-xs px-1.5" side="left" size="w-80">
      {lines.length === 0 ? (
        <p className="text-info">No number has a caption yet. Take a number, and type one above the page.</p>
      ) : (
        <>
          <ul className="mb-3 max-h-60 overflow-y-auto select-text" data-captions>
            {lines.map((line, index) => (
              <li key={index} className="break-words">{line}</li>
            ))}
          </ul>
          <div className="flex items-center gap-2">
            <button type="button" className="btn btn-sm" onClick={() => void copy()}>
              Copy the list
            </button>
            <span role="status" className={copied === "no" ? "text-error" : "text-info"}>
              {copied === "yes" ? "Copied" : copied === "no" ? "The browser did not allow it: select the lines and copy them" : without > 0 ? `${without} without a caption` : ""}
            </span>
          </div>
        </>
      )}
    </Panel>
  );
}
