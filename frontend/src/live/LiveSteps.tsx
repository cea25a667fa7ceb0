import { X } from "lucide-react";

import { connection, useLive } from "./connection";

const LEFT_OUT = {
  password: "A password was typed: it is not kept. Save the sign-in instead.",
  frame: "What was done in a page within the page cannot be repeated.",
  more: "There are as many steps as there can be: what came after is not kept.",
} as const;

/** What was done since the page was loaded: the capture keeps it, so that it can be taken again. */
export function LiveSteps() {
  const { steps, left_out } = useLive((state) => state.steps);
  return (
    <section aria-labelledby="done" className="text-sm">
      <h2 id="done" className="mb-1 text-base font-semibold">
        What you did here
      </h2>
      {steps.length === 0 ? (
        <p>Nothing yet since the page was loaded. Clicks, typing, pointing and scrolling are noted, and kept with the picture as steps for next time.</p>
      ) : (
        <ol className="grid gap-1" data-steps={steps.length}>
          {steps.map((step, number) => (
            <li key={`${number} ${step}`} className="flex items-center gap-1">
              <span className="figure min-w-0 flex-1 truncate" title={step}>
                {step}
              </span>
              <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Leave out: ${step}`} title="Leave this step out" onClick={() => connection.send({ kind: "forget", number })}>
                <X size={14} aria-hidden />
              </button>
            </li>
          ))}
        </ol>
      )}
      {left_out.map((what) => (
        <p key={what} className="mt-1 border-l-4 border-warning pl-2">
          {LEFT_OUT[what]}
        </p>
      ))}
      <button type="button" className="btn btn-sm mt-2" onClick={() => connection.send({ kind: "keep_sign_in" })}>
        Save this sign-in
      </button>
    </section>
  );
}
