import { useCallback, useLayoutEffect, useRef, useState } from "react";

import { useAction } from "../app/actions/useAction";
import type { Output } from "../api/types";
import { useViewport } from "../bench/page/useViewport";
import { bandsNear } from "./bands";
import { CompareTools } from "./CompareTools";
import { Pane } from "./Pane";
import { Difference, Original, Result, Split } from "./sides";
import { middleOf, type Mode, scrolledTo, type Zoom } from "./views";

interface Props {
  output: Output;
  outputs: Output[];
  onOutput: (outputId: number) => void;
}

/** The split's own keys work although a slider counts as a field. */
export const COMPARE_KEYS = { enableOnFormTags: ["slider"] } as const;

/** The comparison with its tools. The place that is looked at stays, whatever is switched. */
export function CompareView({ output, outputs, onOutput }: Props) {
  const [first, setFirst] = useState<HTMLDivElement | null>(null);
  const [second, setSecond] = useState<HTMLDivElement | null>(null);
  const viewport = useViewport(first);
  const [mode, setMode] = useState<Mode>("split");
  const [zoom, setZoom] = useState<Zoom>(1);
  const [flipped, setFlipped] = useState(false);
  const [gone, setGone] = useState({ file_key: "", place: -1 });
  const place = gone.file_key === output.file_key ? gone.place : -1;
  // One pixel of the file is one pixel of the display at 1:1, whatever its density.
  const scale = zoom / window.devicePixelRatio;
  const width = output.made_width_px * scale;
  const height = output.made_height_px * scale;
  const middle = useRef({ x: 0.5, y: 0 });
  /** Scrolling that we did ourselves does not say what a person wants to look at. */
  const ownScroll = useRef(false);

  const show = useCallback(
    (point: { x: number; y: number }) => {
      middle.current = point;
      for (const pane of [first, second]) {
        if (!pane) continue;
        ownScroll.current = true;
        pane.scrollTo(scrolledTo(point, { width, height }, { width: pane.clientWidth, height: pane.clientHeight }));
      }
    },
    [first, second, width, height],
  );
  useLayoutEffect(() => show(middle.current), [show]);

  const follow = (from: HTMLDivElement) => {
    const other = from === first ? second : first;
    if (other && (other.scrollTop !== from.scrollTop || other.scrollLeft !== from.scrollLeft))
      other.scrollTo({ left: from.scrollLeft, top: from.scrollTop });
    if (ownScroll.current) ownScroll.current = false;
    else
      middle.current = middleOf(
        { left: from.scrollLeft, top: from.scrollTop, width: from.clientWidth, height: from.clientHeight },
        { width, height },
      );
  };
  const goTo = (step: 1 | -1) => {
    const next = Math.min(output.worst.length - 1, Math.max(0, place + step));
    const worst = output.worst[next];
    if (!worst) return;
    show({
      x: (worst.x_px + worst.width_px / 2) / output.made_width_px,
      y: (worst.y_px + worst.height_px / 2) / output.made_height_px,
    });
    setGone({ file_key: output.file_key, place: next });
  };

  useAction("original", () => setFlipped(true), { ...COMPARE_KEYS, keydown: true });
  useAction("original", () => setFlipped(false), { ...COMPARE_KEYS, keyup: true, keydown: false });
  useAction("split", () => setMode("split"), COMPARE_KEYS);
  useAction("beside", () => setMode("beside"), COMPARE_KEYS);
  useAction("difference", () => setMode("difference"), COMPARE_KEYS);
  useAction("nextPlace", () => goTo(1), COMPARE_KEYS);
  useAction("placeBefore", () => goTo(-1), COMPARE_KEYS);

  const bands = bandsNear(output.made_height_px, viewport.top / scale, viewport.height / scale);
  const side = { output, bands, scale };
  const pane = { width, height, scale, place: output.worst[place], onScrolled: follow };
  return (
    <div className="flex min-w-0 flex-1 flex-col">
      <CompareTools mode={mode} onMode={setMode} zoom={zoom} onZoom={setZoom} output={output} outputs={outputs} onOutput={onOutput} place={place} onPlace={goTo} />
      <div className="flex min-h-0 flex-1">
        {mode === "split" && (
          <Pane key="split" {...pane} ref={setFirst} names={["Original", flipped ? "Original" : "Result"]}>
            <Split {...side} flipped={flipped} />
          </Pane>
        )}
        {mode === "beside" && (
          <>
            <Pane key="original" {...pane} ref={setFirst} names={["Original"]}>
              <Original {...side} />
            </Pane>
            <Pane key="result" {...pane} ref={setSecond} names={[flipped ? "Original" : "Result"]}>
              {flipped ? <Original {...side} /> : <Result {...side} />}
            </Pane>
          </>
        )}
        {mode === "difference" && (
          <Pane key="difference" {...pane} ref={setFirst} names={[flipped ? "Original" : "Difference, six times as strong"]}>
            {flipped ? <Original {...side} /> : <Difference {...side} />}
          </Pane>
        )}
      </div>
    </div>
  );
}
