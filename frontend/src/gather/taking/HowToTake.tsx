import { SlidersHorizontal } from "lucide-react";
import { lazy, Suspense, useState } from "react";

import { useAskedAddress } from "../addresses";
import { useTakeChanges } from "./takeSettings";

const KeepTaking = lazy(() => import("./KeepTaking").then(({ KeepTaking }) => ({ default: KeepTaking })));
const HowToTakeForm = lazy(() => import("./HowToTakeForm").then(({ HowToTakeForm }) => ({ default: HowToTakeForm })));

/** Settings for pages that need some. Closed until asked for, and fetched only then: most pages need none. */
export function HowToTake() {
  const { changes, resets } = useTakeChanges();
  const unusual = Object.keys(changes).length;
  const cameToChange = useAskedAddress() !== "";
  const [asked, setAsked] = useState(cameToChange);
  return (
    <details className="mt-3" data-how-to-take open={cameToChange || undefined} onToggle={(event) => event.currentTarget.open && setAsked(true)}>
      <summary className="inline-flex cursor-pointer items-center gap-2 text-sm">
        <SlidersHorizontal size={16} aria-hidden />
        How to take it
        {unusual > 0 && <span className="figure bg-accent px-1.5 text-accent-content">{unusual} set</span>}
      </summary>
      {asked && (
        <Suspense fallback={<p className="mt-3 text-sm">Fetching the settings…</p>}>
          <><HowToTakeForm key={resets} /><KeepTaking /></>
        </Suspense>
      )}
    </details>
  );
}
