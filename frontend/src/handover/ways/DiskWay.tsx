import { Download } from "lucide-react";
import { useState } from "react";

import { asProblem } from "../../api/client";
import { useHandOver } from "../../api/handover";
import { ProblemNote } from "../../parts/ProblemNote";
import type { Handed } from "../HandOverPanel";
import { asChosen, KindOf } from "../KindOf";
import { PatternField } from "../PatternField";
import { useRemembered } from "../remembered";

/** Onto one's own disk, under a name from a pattern; several files as one ZIP. */
export function DiskWay({ handed }: { handed: Handed }) {
  const [said, say] = useRemembered("names", { pattern: "" });
  const [pictures, setPictures] = useState(false);
  const what = asChosen(handed.what, pictures);
  const send = useHandOver();
  const save = () => send.mutate({ what, order: { way: "disk", pattern: said.pattern } }, { onSuccess: (line) => window.location.assign(line.file_url) });
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <KindOf what={handed.what} pictures={pictures} onPictures={setPictures} />
      <PatternField what={what} pattern={said.pattern} onPattern={(pattern) => say({ pattern })} />
      <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={send.isPending}>
        <Download size={16} aria-hidden /> Save
      </button>
      {send.isError && <ProblemNote sentence={asProblem(send.error).sentence} hint={asProblem(send.error).hint} />}
      <p className="text-info">Several files come as one ZIP, with a list of what they show.</p>
    </form>
  );
}
