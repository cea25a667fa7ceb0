import { Download } from "lucide-react";
import { useState } from "react";

import { asProblem } from "../../api/client";
import { useHandOver } from "../../api/handover";
import { leafFileUrl, outputFileUrl } from "../../api/pictures";
import { snippetArchiveUrl, type SnippetWords, useSnippet } from "../../api/snippets";
import type { Output } from "../../api/types";
import { formatSize } from "../../parts/figures";
import { ProblemNote } from "../../parts/ProblemNote";
import { CopyButton } from "../Copied";
import type { Handed } from "../HandOverPanel";

const NOTHING_SAID: SnippetWords = { alt: null, caption: "", credit: "", prefix: "", every_size: true };

/** A row's file as it goes into a page: what is said of it, how it looks, the text to be copied. */
export function SnippetWay({ handed }: { handed: Handed }) {
  return handed.output ? <SnippetFields handed={handed} output={handed.output} /> : null;
}

function SnippetFields({ handed, output }: { handed: Handed; output: Output }) {
  const [words, setWords] = useState(NOTHING_SAID);
  const { data: snippet, error } = useSnippet(output, words);
  const note = useHandOver();
  const noted = (thing: "html" | "markdown") => () => note.mutate({ what: handed.what, order: { way: "copied", thing } });
  const say = (change: Partial<SnippetWords>) => setWords({ ...words, ...change });
  if (error) return <ProblemNote sentence={asProblem(error).sentence} hint={asProblem(error).hint} />;
  if (!snippet) return <p>Reading the page…</p>;
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <Words label="What it shows, for who does not see it" value={words.alt ?? snippet.alt} onSay={(alt) => say({ alt })} wide />
        <Words label="Caption" value={words.caption} onSay={(caption) => say({ caption })} />
        <Words label="Credit" value={words.credit} onSay={(credit) => say({ credit })} />
        <Words label="Before each file’s name, like /media/" value={words.prefix} onSay={(prefix) => say({ prefix })} wide />
      </div>
      <label className="flex items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" checked={words.every_size} onChange={(event) => say({ every_size: event.target.checked })} />
        With the other sizes and formats of this cut that show the same
      </label>
      <figure className="border border-base-300 p-3" data-snippet-look>
        <img src={output.leaves.length > 0 ? leafFileUrl(output, 1) : outputFileUrl(output)} alt={words.alt ?? snippet.alt} className="seethrough max-h-44 max-w-full object-contain object-top" />
        {(words.caption || words.credit) && (
          <figcaption className="mt-1">
            {words.caption} <small>{words.credit}</small>
          </figcaption>
        )}
      </figure>
      <p className="text-info">
        {snippet.files.length === 1 ? "One file" : `${snippet.files.length} files`}:{" "}
        {snippet.files.map((file) => formatSize(file.width_px, file.height_px)).join(", ")}
      </p>
      <Copied name="HTML" text={snippet.html} onCopied={noted("html")} />
      <Copied name="Markdown" text={snippet.markdown} onCopied={noted("markdown")} />
      <a className="btn btn-sm justify-self-start" href={snippetArchiveUrl(output, words)} download>
        <Download size={15} aria-hidden /> Save with its {snippet.files.length === 1 ? "file" : "files"}
      </a>
    </div>
  );
}

function Words({ label, value, onSay, wide = false }: { label: string; value: string; onSay: (text: string) => void; wide?: boolean }) {
  return (
    <label className={`flex flex-col gap-1 ${wide ? "col-span-2" : ""}`}>
      {label}
      <input className="input input-sm w-full" value={value} maxLength={1_000} onChange={(event) => onSay(event.target.value)} />
    </label>
  );
}

/** Text to be copied whole. */
function Copied({ name, text, onCopied }: { name: string; text: string; onCopied: () => void }) {
  return (
    <div className="grid gap-1">
      <div className="flex items-center gap-2">
        <span className="font-medium">{name}</span>
        <CopyButton text={text} label={`Copy ${name}`} onCopied={onCopied} />
      </div>
      <textarea readOnly rows={name === "HTML" ? 5 : 2} className="textarea w-full font-mono text-xs" aria-label={`${name} of the snippet`} value={text} onFocus={(event) => event.target.select()} />
    </div>
  );
}
