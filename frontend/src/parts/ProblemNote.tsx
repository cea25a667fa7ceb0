import { CircleAlert } from "lucide-react";
import type { ReactNode } from "react";

/** What happened, to what, and what to do next. */
export function ProblemNote({ sentence, hint, children }: { sentence: string; hint?: string; children?: ReactNode }) {
  return (
    <div className="flex gap-2 rounded-box border border-error/40 p-3 text-sm" role="alert">
      <CircleAlert size={18} className="mt-0.5 shrink-0 text-error" aria-hidden />
      <div className="min-w-0 flex-1">
        <p className="font-medium break-words">{sentence}</p>
        {hint && <p className="mt-0.5 break-words">{hint}</p>}
        {children}
      </div>
    </div>
  );
}
