import { Copy } from "lucide-react";
import { useState } from "react";

/** A button that puts a text into the clipboard, and says so. */
export function CopyButton({ text, label, onCopied }: { text: string; label: string; onCopied?: () => void }) {
  const [done, setDone] = useState<"" | "yes" | "no">("");
  const copy = () => {
    navigator.clipboard.writeText(text).then(
      () => {
        setDone("yes");
        onCopied?.();
      },
      () => setDone("no"),
    );
  };
  return (
    <span className="inline-flex flex-wrap items-center gap-2">
      <button type="button" className="btn btn-xs" onClick={copy}>
        <Copy size={13} aria-hidden /> {label}
      </button>
      <span role="status" className={done === "no" ? "text-error" : "text-info"}>
        {done === "yes" && "Copied."}
        {done === "no" && "The browser did not let it be copied: select it and copy it by hand."}
      </span>
    </span>
  );
}
