import { useStore } from "zustand";

import { drawMarks } from "../api/marks";
import { DressedView } from "./dressing/DressedView";
import { MarkDrawer } from "./marks/drawing/markDrawer";
import { HideStrip } from "./marks/hiding/HideTools";
import { MarkStrip } from "./marks/strip/MarkStrip";
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";

import { useCapture, isPending } from "../api/captures";
import { asProblem } from "../api/client";
import { useStartCut } from "../api/cuts";
import { useOutputs } from "../api/outlets";
import type { CaptureDetail, Cut, Output } from "../api/types";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { CaptureCard } from "../shelf/CaptureCard";
import { BenchContext, type BenchState } from "./benchContext";
import { BenchHeader } from "./BenchHeader";
import { useCutState } from "./cut/useCutState";
import { Ledger } from "./files/Ledger";
import { type ZoomMode, zoomOf } from "./page/geometry/zoom";
import { PageView } from "./page/PageView";
import { Spine } from "./page/Spine";
import { useBreakMoves } from "./page/useBreakMoves";
import { useView } from "./page/useView";
import { useZooming } from "./page/useZooming";
import { PartStrip } from "./PartStrip";
import { BeingTaken } from "./report/BeingTaken";
import { MapDamaged } from "./report/MapDamaged";
import { ReviewStrip } from "./review/ReviewStrip";
import { Toolbar } from "./Toolbar";
import { useBenchKeys } from "./useBenchKeys";

/** One capture on the Bench: the whole page, the part, the files. */
export function BenchPage() {
  const { captureId, cutId } = useParams();
  const capture = useCapture(Number(captureId));
  useTitle(capture.data?.name ?? "Bench");
  if (capture.isPending) return <p className="p-8">Fetching the capture…</p>;
  if (capture.isError) {
    const { sentence, hint } = asProblem(capture.error);
    return (
      <main className="mx-auto max-w-xl p-12">
        <ProblemNote sentence={sentence} hint={hint}>
          <Link to="/shelf" className="btn btn-sm mt-2">
            Go to the shelf
          </Link>
        </ProblemNote>
      </main>
    );
  }
  const cut = capture.data.cuts.find((row) => row.id === Number(cutId)) ?? capture.data.cuts[0];
  if (isPending(capture.data) && capture.data.source === "page") return <BeingTaken capture={capture.data} />;
  if (!capture.data.picture_key || !cut)
    return (
      <main className="mx-auto w-64 p-12">
        <CaptureCard capture={capture.data} />
      </main>
    );
  return <Bench key={cut.id} capture={capture.data} cut={cut} />;
}

const NONE: Output[] = [];

function Bench({ capture, cut }: { capture: CaptureDetail; cut: Cut }) {
  const state = useCutState(capture, cut);
  return state && <Opened capture={capture} cut={cut} {...state} />;
}

function Opened({ capture, cut, store, saver, saveState }: Pick<BenchState, "capture" | "cut" | "store" | "saver" | "saveState">) {
  const navigate = useNavigate();
  const startCut = useStartCut(capture.id);
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const [mode, setMode] = useState<ZoomMode>("fit");
  const viewWidth = useView(scroller, (view) => view.width, 0);
  const viewHeight = useView(scroller, (view) => (mode === "whole" ? view.height : 0), 0);
  const page = useStore(store, (state) => state.page);
  const zoom = zoomOf(mode, page, { width: viewWidth, height: viewHeight }, window.devicePixelRatio);
  const zooming = useZooming(scroller, zoom, setMode);

  const newCut = () => {
    if (startCut.isPending) return;
    startCut.mutate(undefined, {
      onSuccess: (made) => void navigate(`/captures/${capture.id}/cuts/${made.id}`),
    });
  };
  useBenchKeys(store, { onZoom: zooming.to, onStep: zooming.step, onNewCut: newCut });
  const outputs = useOutputs(cut.id).data ?? NONE;
  const [opened, open] = useState<number | null>(null);
  const inHand = outputs.find((row) => row.id === opened) ?? outputs[0];
  const breaks = useBreakMoves(inHand, cut, store);
  const stage = useStore(store, (state) => state.stage);
  const [drawer] = useState(() => new MarkDrawer((asked) => drawMarks(capture, asked)));
  return (
    <BenchContext value={{ capture, cut, store, saver, saveState, outputs, inHand, open, drawer, breaks }}>
      <main className="flex h-full min-w-[960px] flex-col">
        <BenchHeader onNewCut={newCut} />
        <div className="flex min-h-0 flex-1">
          <Spine scroller={scroller} zoom={zoom} />
          <div className="flex min-w-0 flex-1 flex-col">
            <Toolbar mode={mode} zoom={zoom} zooming={zooming} />
            {stage === "part" && <PartStrip scroller={scroller} zoom={zoom} />}
            {stage === "point" && <MarkStrip />}
            {stage === "hide" && <HideStrip />}
            {cut.review.length > 0 && <ReviewStrip scroller={scroller} zoom={zoom} />}
            <MapDamaged />
            {stage === "dress" ? <DressedView /> : <PageView scroller={scroller} onScroller={setScroller} viewWidth={viewWidth} zoom={zoom} />}
          </div>
          <Ledger />
        </div>
      </main>
    </BenchContext>
  );
}
