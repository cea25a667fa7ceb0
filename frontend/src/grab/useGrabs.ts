import { useCallback, useRef, useState } from "react";

import { useAddPicture } from "../api/captures";
import { showProblem } from "../app/showProblem";
import { grabbed, type Shared } from "./sharing";

export interface Grabs {
  /** The captures that they have become, in the order they were grabbed. */
  ids: readonly number[];
  grab: (shared: Shared) => void;
  clear: () => void;
}

/** Pictures grabbed of a shared screen: each is drawn at once, and sent to the shelf after the one before it. */
export function useGrabs(): Grabs {
  const [ids, setIds] = useState<readonly number[]>([]);
  const { mutateAsync } = useAddPicture();
  const sent = useRef<Promise<void>>(Promise.resolve());
  const grab = useCallback((shared: Shared) => {
    const name = `${shared.label && !/^(web-contents|window|screen|current)/.test(shared.label) ? shared.label : `Shared ${shared.surface}`}.png`;
    const drawn = grabbed(shared);
    sent.current = sent.current
      .then(async () => {
        const { id } = await mutateAsync({ file: await drawn, name });
        setIds((before) => [...before, id]);
      })
      .catch(showProblem);
  }, [mutateAsync]);
  return { ids, grab, clear: () => { setIds([]); } };
}
