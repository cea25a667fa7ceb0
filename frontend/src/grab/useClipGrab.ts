import { useEffect, useState } from "react";
import { useNavigate } from "react-router";

import { beginSharedClip, endSharedClip, sendSharedFrame } from "../api/clips";
import { showProblem } from "../app/showProblem";
import { CLIP_RATE_FPS, MOST_CLIP_S, Recording } from "./recording";
import { grabbed, type Shared } from "./sharing";
import { every } from "./ticking";

/** Makes a clip of what is shared while it `isOn`, and goes to it afterwards; gives for how many seconds it has gone on. */
export function useClipGrab(shared: Shared, isOn: boolean, onEnd: () => void): number {
  const navigate = useNavigate();
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    if (!isOn) return;
    const { videoWidth, videoHeight } = shared.video;
    const begunMs = performance.now();
    const key = beginSharedClip();
    key.catch(onEnd); // told with all else, at the end
    const recording = new Recording({ draw: () => grabbed(shared, videoWidth, videoHeight), send: async (number, picture) => sendSharedFrame(await key, number, picture) }, begunMs);
    const end = every(1_000 / CLIP_RATE_FPS, () => {
      const nowMs = performance.now();
      recording.tick(nowMs);
      const passed = Math.floor((nowMs - begunMs) / 1_000);
      setSeconds(passed);
      if (passed >= MOST_CLIP_S) onEnd();
    });
    return () => {
      end();
      const endedMs = performance.now();
      setSeconds(0);
      const finish = async () => {
        const begun = await key;
        const frame_count = await recording.finish(endedMs);
        if (recording.failure) showProblem(recording.failure);
        const { id } = await endSharedClip(begun, { name: `Shared ${shared.surface}`, rate_fps: CLIP_RATE_FPS, frame_count });
        // Who has gone on to another screen meanwhile finds it in the list of clips.
        if (window.location.pathname === "/grab") void navigate(`/clips/${id}`);
      };
      finish().catch(showProblem);
    };
  }, [isOn, shared, navigate, onEnd]);
  return seconds;
}
