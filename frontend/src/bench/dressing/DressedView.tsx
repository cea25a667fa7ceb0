import { useState } from "react";

import { useBench } from "../benchContext";
import { formatPx } from "../../parts/figures";

const USUAL_WIDTH = 720;

/** The picture as its file will be, with all that is around it; the middle of a tall one is left out. */
export function DressedView() {
  const { cut, inHand, saveState } = useBench();
  const width = inHand?.width_px ?? USUAL_WIDTH;
  const [failed, setFailed] = useState(0);
  const source = `/api/cuts/${cut.id}/dressed?width_px=${width}&version=${cut.version}`;
  return (
    <div className="min-h-0 flex-1 overflow-auto bg-base-200 p-4" role="region" aria-label="The picture as it will be" tabIndex={0}>
      <p className="mb-2 text-sm text-info">
        As the file of <span className="figure">{formatPx(width)}</span> px will look. The middle of a tall picture is left out here.
        {saveState.kind !== "saved" && " Being drawn…"}
      </p>
      {failed === cut.version ? (
        <p role="alert" className="text-error">
          This cannot be drawn: what is around the picture takes all the room. Give it less, or choose a wider file.
        </p>
      ) : (
        <img src={source} alt="The picture with what is around it" className="seethrough max-w-none" onError={() => setFailed(cut.version)} />
      )}
    </div>
  );
}
