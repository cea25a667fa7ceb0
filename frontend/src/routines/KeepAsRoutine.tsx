import { useState } from "react";
import { useNavigate } from "react-router";

import { useAddRoutine } from "../api/routines";
import { showProblem } from "../app/showProblem";
import { ClosingButton } from "../parts/Panel";

/** What was done to the page in hand, kept as a routine; each step can be left out there. */
export function KeepAsRoutine({ cutId, captureId, onSaved }: { cutId: number; captureId: number; onSaved: () => Promise<unknown> }) {
  const add = useAddRoutine();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  return (
    <div className="grid gap-2">
      <p>What was done here, for other pages: how it was taken, what is shown of it, what goes around it, its files.</p>
      <span className="flex gap-2">
        <input className="input input-sm min-w-0 flex-1" aria-label="Name of the new routine" placeholder="Its name" maxLength={120} value={name} onChange={(event) => setName(event.target.value)} />
        <ClosingButton
          className="btn btn-primary btn-sm"
          disabled={add.isPending}
          onClick={() => {
            void onSaved().then(() => add.mutateAsync({ cut_id: cutId, name: name.trim() }).then(({ id }) => navigate(`/routines/${id}?sample=${captureId}`), showProblem));
          }}
        >
          Keep as routine
        </ClosingButton>
      </span>
    </div>
  );
}
