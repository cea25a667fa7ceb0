import { FileUp, Globe } from "lucide-react";
import { useRef, useState } from "react";

import type { ListSource } from "../../api/sweeps";

interface SourcesProps {
  first: string;
  busy: boolean;
  /** Whether a list has been read, which then matters more. */
  small: boolean;
  onRead: (source: ListSource) => void;
}

/** Where a list comes from: pasted, a file, or a site that tells of its pages itself. */
export function Sources({ first, busy, small, onRead }: SourcesProps) {
  const [text, setText] = useState(first);
  const [address, setAddress] = useState("");
  const file = useRef<HTMLInputElement>(null);
  return (
    <section aria-label="Where the pages come from">
      <textarea
        className="textarea w-full"
        rows={small ? 2 : 7}
        aria-label="Pages, pasted"
        placeholder={"Paste addresses: a mail, a spreadsheet column, text with links"}
        spellCheck={false}
        autoFocus
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <button type="button" className="btn btn-primary" disabled={busy || !text.trim()} onClick={() => onRead({ text })}>
          Check the list
        </button>
        <input
          ref={file}
          type="file"
          className="hidden"
          aria-label="List as a file"
          accept=".txt,.csv,.tsv,.xlsx,.md,.html"
          onChange={(event) => {
            const chosen = event.target.files?.[0];
            if (chosen) onRead({ file: chosen });
            event.target.value = "";
          }}
        />
        <button type="button" className="btn" disabled={busy} onClick={() => file.current?.click()}>
          <FileUp size={18} aria-hidden /> Text, CSV or XLSX file
        </button>
        <form
          className="flex min-w-64 flex-1 gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (address.trim()) onRead({ address });
          }}
        >
          <input
            className="input min-w-0 flex-1"
            aria-label="Sitemap, or a page with links"
            placeholder="or a sitemap, or a page with links"
            spellCheck={false}
            value={address}
            onChange={(event) => setAddress(event.target.value)}
          />
          <button type="submit" className="btn" disabled={busy || !address.trim()}>
            <Globe size={18} aria-hidden /> Find pages
          </button>
        </form>
      </div>
      {busy && <p className="mt-2 text-sm" role="status">Reading…</p>}
    </section>
  );
}
