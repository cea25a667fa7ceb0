import { ChevronsDown, Info, KeyRound, MousePointerClick, RotateCcw, SlidersHorizontal, TriangleAlert } from "lucide-react";
import type { ReactNode } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";

import { useRetake, useTakeFurther } from "../../api/retake";
import type { CaptureDetail } from "../../api/types";
import { useNotices } from "../../app/notices";
import { showProblem } from "../../app/showProblem";
import { useTakeChanges } from "../../gather/taking/takeSettings";
import { formatBytes, formatMoment, formatPx, screenWords } from "../../parts/figures";
import { Panel } from "../../parts/Panel";
import { useBench } from "../benchContext";
import { Missing } from "./Missing";

/** How the page was taken: quiet when all is well, marked when something is missing. */
export function Report() {
  const { capture } = useBench();
  const [search] = useSearchParams();
  const warned = capture.warnings.length > 0;
  return (
    <Panel
      name={reportLabel(capture)}
      side="left"
      size="w-[28rem]"
      button={capture.whole ? "btn-ghost" : "border-accent"}
      openAtFirst={search.has("report")}
      label={
        <>
          {warned ? <TriangleAlert size={16} className="text-accent" aria-hidden /> : <Info size={16} aria-hidden />}
          {reportLabel(capture)}
        </>
      }
    >
      <Missing capture={capture} />
      {capture.warnings.filter((warning) => !warning.startsWith("Not whole")).map((warning) => (
        <p key={warning} className="mb-2 font-medium break-words">
          {warning}
        </p>
      ))}
      <Facts capture={capture} />
      {capture.source === "page" && <Actions capture={capture} />}
    </Panel>
  );
}

function reportLabel({ whole, warnings, left_out }: CaptureDetail): string {
  if (!whole) return "Not whole";
  if (warnings.length > 0) return warnings.length === 1 ? "1 warning" : `${warnings.length} warnings`;
  return left_out.length > 0 ? `Report: ${left_out.length} left out` : "Report";
}

function Facts({ capture }: { capture: CaptureDetail }) {
  const taken = capture.taken_at ? formatMoment(capture.taken_at) : "";
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
      {capture.final_address && (
        <Fact name="Address">
          <a className="link break-all" href={capture.final_address} target="_blank" rel="noreferrer">
            {capture.final_address}
          </a>
        </Fact>
      )}
      {capture.title && <Fact name="Title">{capture.title}</Fact>}
      {capture.status !== null && (
        <Fact name="Status">
          <span className="figure">{capture.status}</span>
        </Fact>
      )}
      {capture.screen && (
        <Fact name="Screen">
          <span className="figure">{screenWords(capture.screen)}</span>
          {capture.screen.touch && ", asked for as by a phone or tablet"}
        </Fact>
      )}
      <Fact name="Taken">
        <span className="figure">
          {taken}
          {capture.seconds !== null && ` in ${capture.seconds} s`}
        </span>
      </Fact>
      {capture.top_px > 0 && (
        <Fact name="Begins at">
          <span className="figure">{formatPx(capture.top_px)} px</span> from the page&rsquo;s top
        </Fact>
      )}
      {capture.signed_in && <Fact name="Signed in">with the sign-in saved for the host</Fact>}
      {capture.done_before.length > 0 && (
        <Fact name="Done before">
          <Lines lines={capture.done_before} />
        </Fact>
      )}
      <Fact name="Strips">
        <span className="figure">
          {capture.strips.length}, {formatBytes(capture.bytes)}
        </span>
      </Fact>
    </dl>
  );
}

function Fact({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt className="whitespace-nowrap">{name}</dt>
      <dd className="min-w-0 break-words">{children}</dd>
    </>
  );
}

function Lines({ lines }: { lines: string[] }) {
  return (
    <ul>
      {lines.map((words, index) => (
        <li key={index}>{words}</li>
      ))}
    </ul>
  );
}

function Actions({ capture }: { capture: CaptureDetail }) {
  const retake = useRetake();
  const further = useTakeFurther();
  const show = useNotices((state) => state.show);
  const changeSettings = useTakeChanges((state) => state.change);
  const navigate = useNavigate();
  const send = (action: typeof retake, words: string) =>
    action.mutate(capture.id, {
      onSuccess: () => show({ tone: "info", text: `${words} It lands on the shelf.` }),
      onError: showProblem,
    });
  /** Back to Gather, with this page's address and settings in hand. */
  const differently = () => {
    changeSettings({ ...capture.settings, from_px: 0 });
    void navigate("/", { state: { address: capture.address } });
  };
  const metSignIn = capture.warnings.some((warning) => warning.startsWith("A sign-in page was met"));
  return (
    <div className="mt-3 flex flex-wrap gap-2">
      {capture.truncated && (
        <button type="button" className="btn btn-primary btn-sm" onClick={() => send(further, "What lies further down is being taken.")}>
          <ChevronsDown size={15} aria-hidden /> Take what lies further down
        </button>
      )}
      {metSignIn && (
        <Link className="btn btn-primary btn-sm" to={`/sign-ins?${String(new URLSearchParams({ host: new URL(capture.address).host, page: capture.final_address }))}`}>
          <KeyRound size={15} aria-hidden /> Save a sign-in
        </Link>
      )}
      <button type="button" className="btn btn-sm" onClick={() => send(retake, "The page is being taken again, and its cuts go along.")}>
        <RotateCcw size={15} aria-hidden /> Take again, the same way
      </button>
      <button type="button" className="btn btn-sm" onClick={differently}>
        <SlidersHorizontal size={15} aria-hidden /> Take again with changes
      </button>
      <Link className="btn btn-sm" to={`/live?${String(new URLSearchParams({ address: capture.address }))}`}>
        <MousePointerClick size={15} aria-hidden /> Use it on a live page
      </Link>
    </div>
  );
}
