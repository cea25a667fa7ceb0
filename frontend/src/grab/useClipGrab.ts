import { useEffect, useState } from "react";
import { useNavigate } from "react-router";

import { beginSharedClip, endSharedClip, sendSharedFrame } from "../api/clips";
import { showProblem } from "../app/showProblem";
import { CLIP_RATE_FPS, MOST_CLIP_S, Recording } from "./recording";
import { grabbedOn, type Shared } from "./sharing";
import { every } from "./ticking";

/** Makes a clip of what is shared while it `isOn`, and goes to it afterwards; gives for how many seconds it has gone on. */
export function useClipGrab(shared: Shared, isOn: boolean, onFull: () => void): number {
  const navigate = useNavigate();
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    if (!isOn) return;
    const { videoWidth, videoHeight } = shared.video;
    const begunMs = performance.now();
    const key = beginSharedClip();
    key.catch(() => undefined); // told with all else, at the end
    const recording = new Recording({ draw: () => grabbedOn(shared, videoWidth, videoHeight), send: async (number, seen, picture) => sendSharedFrame(await key, number, seen, picture) }, begunMs);
    const end = every(1_000 / CLIP_RATE_FPS, () => {
      const nowMs = performance.now();
      recording.tick(nowMs);
      const passed = Math.floor((nowMs - begunMs) / 1_000);
      setSeconds(passed);
      if (passed >= MOST_CLIP_S) onFull();
    });
    return () => {
      end();
      setSeconds(0);
      const finish = async () => {
        await recording.finish(performance.now());
        const { id } = await endSharedClip(await key, `Shared ${shared.surface}`, CLIP_RATE_FPS);
        // Who has gone on to another screen meanwhile finds it in the list of clips.
        if (window.location.pathname === "/grab") void navigate(`/clips/${id}`);
      };
      finish().catch(showProblem);
    };
  }, [isOn, shared, navigate, onFull]);
  return seconds;
}
