import { stripSoFarUrl } from "../../api/pictures";
import type { CaptureDetail } from "../../api/types";
import { JobProgress } from "../../parts/JobProgress";
import { StopButtons } from "../../shelf/StopButtons";

/** A page while it is being taken: what there is of it can be looked at already. */
export function BeingTaken({ capture }: { capture: CaptureDetail }) {
  const { job } = capture;
  const strips = job.stage === "taking" ? job.done : 0;
  return (
    <main className="flex h-full" data-being-taken>
      <section className="w-72 shrink-0 border-r border-base-300 p-6" aria-label="Progress">
        <h1 className="mb-4 font-semibold break-words">{capture.name}</h1>
        <JobProgress job={job} />
        <StopButtons capture={capture} />
        <p className="mt-6 text-sm">
          {strips > 0
            ? "What there is of the page can be looked at while the rest comes. Files can be made when all of it is there."
            : "The first strips show here as soon as they are taken."}
        </p>
      </section>
      <div className="min-w-0 flex-1 overflow-y-auto bg-base-200 p-6">
        {Array.from({ length: strips }, (_, number) => (
          <img
            key={number}
            src={stripSoFarUrl(capture, number)}
            alt=""
            data-strip-so-far={number}
            loading="lazy"
            className="block min-h-8 w-full"
            style={{ maxWidth: capture.screen?.width_px }}
          />
        ))}
      </div>
    </main>
  );
}
