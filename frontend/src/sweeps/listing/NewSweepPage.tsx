import { useMutation } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useLocation, useNavigate } from "react-router";

import { asProblem } from "../../api/client";
import { useScreens } from "../../api/screens";
import { readList, useStartSweep } from "../../api/sweeps";
import { ScreenChips } from "../../gather/ScreenChips";
import { useChosenScreens } from "../../gather/screenChoice";
import { HowToTake } from "../../gather/taking/HowToTake";
import { useTakeChanges } from "../../gather/taking/takeSettings";
import { counted } from "../../parts/figures";
import { ProblemNote } from "../../parts/ProblemNote";
import { useTitle } from "../../parts/useTitle";
import { CheckedList } from "./CheckedList";
import { isPicked, type Picking } from "./picking";
import { Sources } from "./Sources";
import { defaultTerms, TermsFields } from "./Terms";

const ALL_PICKED: Picking = { leftOut: new Set(), placesOut: new Set(), respectRobots: true };

/** Many pages: first which, then how; nothing is taken before both are seen. */
export function NewSweepPage() {
  useTitle("Many pages");
  const navigate = useNavigate();
  const asked = useLocation().state as { text?: string; file?: File } | null;
  const [picking, setPicking] = useState(ALL_PICKED);
  const [terms, setTerms] = useState(defaultTerms);
  const reading = useMutation({ mutationFn: readList, onSuccess: () => setPicking(ALL_PICKED) });
  const start = useStartSweep();
  const { data: presets } = useScreens();
  const chosen = useChosenScreens();
  const settings = useTakeChanges((state) => state.changes);

  const { mutate: read, variables: source } = reading;
  // What was dropped or pasted elsewhere is read at once.
  const handedOver = useRef<unknown>(null);
  useEffect(() => {
    if (!asked || handedOver.current === asked) return;
    handedOver.current = asked;
    if (asked.file) read({ file: asked.file });
    else if (asked.text) read({ text: asked.text });
  }, [asked, read]);
  const listing = reading.data;
  const fromSite = source !== undefined && "address" in source;
  const pages = listing?.pages.filter((page) => isPicked(page, picking)) ?? [];
  const screens = (presets ?? [])
    .filter((screen) => chosen.includes(screen.name))
    .map(({ width_px, height_px, scale, touch }) => ({ width_px, height_px, scale, touch }));
  const problem = reading.error ?? start.error;

  const begin = async () => {
    const sweep = await start.mutateAsync({
      name: terms.name,
      pages: pages.map(({ address, title, line }) => ({ address, title, line })),
      screens,
      settings,
      slot_ids: [...terms.slotIds],
      pattern: terms.pattern,
      at_once: terms.atOnce,
      pause_ms: Math.round(terms.pauseS * 1_000),
      // A site is asked again the next time; what was not wanted of it stays out then.
      site: fromSite ? (listing?.source ?? "") : "",
      left_out: fromSite ? (listing?.pages ?? []).filter((page) => !isPicked(page, picking)).map((page) => page.address) : [],
    });
    await navigate(`/sweeps/${sweep.id}`);
  };

  return (
    <main className="mx-auto max-w-6xl px-6 pt-8 pb-16">
      <h1 className="mb-4 text-2xl font-semibold">Many pages</h1>
      <Sources first={asked?.text ?? ""} busy={reading.isPending} small={listing !== undefined} onRead={read} />
      {problem && (
        <div className="mt-4">
          <ProblemNote sentence={asProblem(problem).sentence} hint={asProblem(problem).hint} />
        </div>
      )}
      {listing && (
        <div className="mt-6 grid gap-8 border-t border-base-300 pt-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
          <CheckedList
            key={reading.submittedAt}
            listing={listing}
            picking={picking}
            onPick={setPicking}
            onColumn={(column) => source && "file" in source && read({ ...source, column })}
          />
          <section className="min-w-0" aria-label="How they are taken">
            <button
              type="button"
              className="btn btn-primary btn-block mb-4 text-base"
              disabled={pages.length === 0 || screens.length === 0 || start.isPending}
              onClick={() => void begin().catch(() => undefined)}
            >
              {start.isPending ? "Starting…" : `Take ${counted(pages.length * screens.length, "picture")}`}
            </button>
            <p className="mb-2 text-sm">
              {counted(pages.length, "page")} on {counted(screens.length, "screen")}
            </p>
            <ScreenChips />
            <div className="mt-4">
              <TermsFields terms={terms} onChange={setTerms} pages={pages} screens={screens} />
            </div>
            <HowToTake />
          </section>
        </div>
      )}
    </main>
  );
}
