import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";

import { fetchCut, saveFrame, useCapture, useStartCut, isPending } from "../api/captures";
import { asProblem } from "../api/client";
import { fitStale, useOutputs } from "../api/outlets";
import type { CaptureDetail, Cut, Output } from "../api/types";
import { useNotices } from "../app/notices";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { CaptureCard } from "../shelf/CaptureCard";
import { BenchContext } from "./benchContext";
import { FrameSaver, type SaveState } from "./frameSaver";
import { createFrameStore, type FrameStore } from "./frameStore";
import { BeingTaken } from "./BeingTaken";
import { BenchHeader } from "./BenchHeader";
import { Ledger } from "./Ledger";
import { MapDamaged } from "./MapDamaged";
import { PageView } from "./PageView";
import { Spine } from "./Spine";
import { Toolbar } from "./Toolbar";
import { useBenchKeys } from "./useBenchKeys";
import { useViewport } from "./useViewport";
import { type ZoomMode, zoomOf } from "./zoom";

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
/** A frame that is still being changed is not fitted to yet. */
const REFIT_AFTER_MS = 500;

function Bench({ capture, cut }: { capture: CaptureDetail; cut: Cut }) {
  const [frames] = useState(() => createFrameStore(capture, cut.frame));
  const { saver, saveState } = useSaver(capture, cut, frames);
  const navigate = useNavigate();
  const startCut = useStartCut(capture.id);
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const viewport = useViewport(scroller);
  const [mode, setMode] = useState<ZoomMode>("fit");
  const zoom = zoomOf(mode, capture.width_px, viewport.width, window.devicePixelRatio);

  const newCut = () => {
    if (startCut.isPending) return;
    startCut.mutate(undefined, {
      onSuccess: (made) => void navigate(`/captures/${capture.id}/cuts/${made.id}`),
    });
  };
  useBenchKeys(frames, { onMode: setMode, onNewCut: newCut });
  const outputs = useOutputs(cut.id).data ?? NONE;
  const [opened, open] = useState<number | null>(null);
  const inHand = outputs.find((row) => row.id === opened) ?? outputs[0];
  if (!saver) return null;
  return (
    <BenchContext value={{ capture, cut, frames, saver, saveState, outputs, inHand, open }}>
      <main className="flex h-full min-w-[960px] flex-col">
        <BenchHeader onNewCut={newCut} />
        <div className="flex min-h-0 flex-1">
          <Spine scroller={scroller} viewport={viewport} zoom={zoom} />
          <div className="flex min-w-0 flex-1 flex-col">
            <Toolbar mode={mode} onMode={setMode} />
            <MapDamaged />
            <PageView scroller={scroller} onScroller={setScroller} viewport={viewport} zoom={zoom} />
          </div>
          <Ledger />
        </div>
      </main>
    </BenchContext>
  );
}

/** Keeps the cut written while this Bench is open. */
function useSaver(capture: CaptureDetail, cut: Cut, frames: FrameStore) {
  const [saveState, setSaveState] = useState<SaveState>({ kind: "saved" });
  const [saver, setSaver] = useState<FrameSaver | null>(null);
  const queries = useQueryClient();
  const show = useNotices((state) => state.show);
  const opened = useRef(cut);
  const refit = useRef<ReturnType<typeof setTimeout>>(null);
  useEffect(() => {
    const made = new FrameSaver(opened.current, frames, {
      save: saveFrame,
      fetch: fetchCut,
      asProblem,
      onState: setSaveState,
      onSaved: (saved) => {
        opened.current = saved;
        queries.setQueryData<CaptureDetail>(["capture", capture.id], (old) =>
          old && { ...old, cuts: old.cuts.map((row) => (row.id === saved.id ? saved : row)) },
        );
        if (refit.current) clearTimeout(refit.current);
        refit.current = setTimeout(() => {
          void fitStale(saved.id).finally(() => queries.invalidateQueries({ queryKey: ["outputs", saved.id] }));
        }, REFIT_AFTER_MS);
        void queries.invalidateQueries({ queryKey: ["outputs", saved.id] });
      },
      onChangedElsewhere: ({ sentence, hint }) => show({ tone: "error", text: sentence, hint }),
    });
    setSaver(made);
    return () => made.close();
  }, [capture.id, frames, queries, show]);
  return { saver, saveState };
}
