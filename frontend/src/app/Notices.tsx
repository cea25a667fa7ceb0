import { X } from "lucide-react";

import { useNotices } from "./notices";

/** The lines at the lower edge. */
export function Notices() {
  const { notices, dismiss } = useNotices();
  return (
    <div className="fixed bottom-4 left-1/2 z-50 flex w-[min(36rem,92vw)] -translate-x-1/2 flex-col gap-2" role="status">
      {notices.map((notice) => (
        <div
          key={notice.id}
          className={`flex items-start gap-3 rounded-box border px-4 py-3 ${
            notice.tone === "error" ? "border-error bg-base-100" : "border-neutral bg-neutral text-neutral-content"
          }`}
        >
          <div className="min-w-0 flex-1">
            <p className={notice.tone === "error" ? "font-medium text-error" : ""}>{notice.text}</p>
            {notice.hint && <p className="text-sm opacity-80">{notice.hint}</p>}
          </div>
          {notice.action && (
            <button
              type="button"
              className="btn btn-sm btn-accent"
              onClick={() => {
                notice.action?.run();
                dismiss(notice.id);
              }}
            >
              {notice.action.label}
            </button>
          )}
          <button type="button" aria-label="Dismiss" className="btn btn-square btn-ghost btn-sm" onClick={() => dismiss(notice.id)}>
            <X size={16} aria-hidden />
          </button>
        </div>
      ))}
    </div>
  );
}
