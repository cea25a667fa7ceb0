import { FolderDown } from "lucide-react";
import { useState } from "react";

import { useHandOver, useWaysOut } from "../../api/handover";
import { CopyButton } from "../Copied";
import type { Handed } from "../HandOverPanel";
import { asChosen, KindOf } from "../KindOf";
import { PatternField } from "../PatternField";
import { Progress } from "../Progress";
import { useRemembered } from "../remembered";

/** Into a new folder on the server's disk. */
export function FolderWay({ handed }: { handed: Handed }) {
  const ways = useWaysOut();
  const [said, say] = useRemembered("names", { pattern: "" });
  const [folder, setFolder] = useState("");
  const [pictures, setPictures] = useState(false);
  const what = asChosen(handed.what, pictures);
  const send = useHandOver();
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate({ what, order: { way: "folder", folder, pattern: said.pattern } });
      }}
    >
      <KindOf what={handed.what} pictures={pictures} onPictures={setPictures} />
      <label className="grid gap-1">
        Folder
        <input className="input input-sm w-full" placeholder="named after the page" maxLength={80} value={folder} onChange={(event) => setFolder(event.target.value)} />
        <span className="text-info break-all">It is made in {ways.data?.folder ?? "…"}</span>
      </label>
      <PatternField what={what} pattern={said.pattern} onPattern={(pattern) => say({ pattern })} />
      <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={send.isPending}>
        <FolderDown size={16} aria-hidden /> Save there
      </button>
      <Progress first={send.data} error={send.error}>
        {(line) => <CopyButton text={line.address} label="Copy the folder’s path" />}
      </Progress>
    </form>
  );
}
