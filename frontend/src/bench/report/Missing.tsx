import { ScanLine } from "lucide-react";
import { useNavigate } from "react-router";

import { useTakePage } from "../../api/captures";
import type { CaptureDetail, Lacking, TakeSettings } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { USUAL } from "../../gather/taking/takeSettings";
import { formatPx } from "../../parts/figures";
import { helpFor, WHY } from "./missingHelp";

/** What of the page is not in the picture, and one press for each that takes the page with it. */
export function Missing({ capture }: { capture: CaptureDetail }) {
  if (capture.whole && capture.left_out.length === 0) return null;
  return (
    <section className="mb-3 border-l-2 border-accent pl-3" aria-label="What is missing">
      {!capture.whole && <Lack capture={capture} />}
      {capture.left_out.length > 0 && <LeftOut capture={capture} />}
    </section>
  );
}

function Lack({ capture }: { capture: CaptureDetail }) {
  const words = capture.lacking.reduce((sum, row) => sum + row.words, 0);
  return (
    <>
      <h2 className="font-semibold">Not whole</h2>
      {capture.words > 0 && (
        <p>
          <span className="figure">
            {formatPx(words)} of {formatPx(capture.words)}
          </span>{" "}
          words of the page are not in the picture.
        </p>
      )}
      <ul className="mt-1 mb-2 space-y-2">
        {capture.lacking.map((row, index) => (
          <li key={index}>
            {WHY[row.why]}
            {row.words > 0 && (
              <>
                , <span className="figure">{formatPx(row.words)}</span> words
              </>
            )}
            : <q className="break-words">{row.first}</q>
            <Help capture={capture} row={row} />
          </li>
        ))}
      </ul>
    </>
  );
}

function Help({ capture, row }: { capture: CaptureDetail; row: Lacking }) {
  const help = helpFor(row);
  if (!help) return null;
  return <TakeWith capture={capture} label={help.label} address={help.address} change={help.change} />;
}

function LeftOut({ capture }: { capture: CaptureDetail }) {
  return (
    <>
      <h2 className="font-semibold">
        <span className="figure">{capture.left_out.length}</span> left out
      </h2>
      <p>These hang in the window, over the page:</p>
      <ul className="mb-1 list-disc pl-4">
        {capture.left_out.map((words, index) => (
          <li key={index} className="break-words">
            {words}
          </li>
        ))}
      </ul>
      {capture.settings.fixed_overlays !== "keep" && <TakeWith capture={capture} label="Take the page with them" change={{ fixed_overlays: "keep" }} />}
    </>
  );
}

interface TakeWithProps {
  capture: CaptureDetail;
  label: string;
  address?: string | undefined;
  change: Partial<TakeSettings>;
}

/** Takes the page once more with something changed, and leads to where it lands. */
function TakeWith({ capture, label, address, change }: TakeWithProps) {
  const take = useTakePage();
  const navigate = useNavigate();
  const press = () => {
    if (!capture.screen) return;
    const settings = { ...USUAL, ...capture.settings, ...change, from_px: 0 };
    take.mutate(
      { address: address ?? capture.address, screen: capture.screen, settings },
      {
        onSuccess: (taken) => void navigate(`/captures/${taken.id}`),
        onError: showProblem,
      },
    );
  };
  return (
    <button type="button" className="btn btn-sm mt-1 flex" disabled={take.isPending} onClick={press}>
      <ScanLine size={15} aria-hidden /> {label}
    </button>
  );
}
