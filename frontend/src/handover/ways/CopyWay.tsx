import { ImageDown } from "lucide-react";
import { useState } from "react";

import { useHandOver } from "../../api/handover";
import { outputFileUrl } from "../../api/pictures";
import { CopyButton } from "../Copied";
import { copyPicture } from "../copyPicture";
import type { Handed } from "../HandOverPanel";

/** Into the clipboard: the picture itself, or where it and its page are. */
export function CopyWay({ handed }: { handed: Handed }) {
  const [said, setSaid] = useState("");
  const { output, address } = handed;
  const note = useHandOver();
  const noted = (thing: "picture" | "file_address" | "path" | "page_address") => () => note.mutate({ what: handed.what, order: { way: "copied", thing } });
  if (!output) return null;
  const file = `${window.location.origin}${outputFileUrl(output)}`;
  const copy = () => {
    copyPicture(file).then(
      () => {
        setSaid("Copied: paste it where it is needed.");
        noted("picture")();
      },
      () => setSaid("The browser did not take the picture. Save it, or drag it where it is needed."),
    );
  };
  return (
    <div className="grid gap-4">
      <div className="grid gap-1">
        <button type="button" className="btn btn-primary btn-sm justify-self-start" disabled={output.leaves.length > 0} onClick={copy}>
          <ImageDown size={16} aria-hidden /> Copy the picture
        </button>
        <p role="status" className="text-info">
          {said || (output.leaves.length > 0 ? "It is in several files: save them instead." : "As PNG, which is what clipboards hold: larger than the file, with the same pixels.")}
        </p>
      </div>
      <Text words="Address of the file on this server" text={file} label="Copy the file’s address" onCopied={noted("file_address")} />
      <Text words="Path in the data folder" text={output.file_path} label="Copy the path" onCopied={noted("path")} />
      {address && <Text words="Address of the page" text={address} label="Copy the page’s address" onCopied={noted("page_address")} />}
    </div>
  );
}

function Text({ words, text, label, onCopied }: { words: string; text: string; label: string; onCopied: () => void }) {
  return (
    <div className="grid gap-1">
      <span className="font-medium">{words}</span>
      <span className="font-mono text-xs break-all">{text}</span>
      <CopyButton text={text} label={label} onCopied={onCopied} />
    </div>
  );
}
