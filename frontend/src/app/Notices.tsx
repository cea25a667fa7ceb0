import { Toast } from "@base-ui/react/toast";
import { X } from "lucide-react";
import { useEffect } from "react";

import { MOST_SHOWN, type Notice, stayMs, useNotices } from "./notices";

/** The lines at the lower edge. */
export function Notices() {
  return (
    <Toast.Provider limit={MOST_SHOWN}>
      <Lines />
    </Toast.Provider>
  );
}

function Lines() {
  const { toasts, add, close } = Toast.useToastManager<Notice>();
  const { waiting, take } = useNotices();
  useEffect(() => {
    for (const notice of take())
      add({
        title: notice.text,
        description: notice.hint,
        timeout: stayMs(notice),
        priority: notice.tone === "error" ? "high" : "low",
        data: notice,
      });
  }, [waiting, take, add]);
  // Whoever goes on working has read what only says that something is done: it covers nothing any longer.
  useEffect(() => {
    const goOn = (event: PointerEvent) => {
      if (event.target instanceof Element && event.target.closest("[aria-label=Notices]")) return;
      for (const { id, data } of toasts) if (data?.tone === "info" && !data.action) close(id);
    };
    document.addEventListener("pointerdown", goOn);
    return () => document.removeEventListener("pointerdown", goOn);
  }, [toasts, close]);
  return (
    <Toast.Portal>
      <Toast.Viewport className="fixed bottom-[calc(1rem+var(--lower-bar-height,0px))] left-1/2 z-50 flex w-[min(36rem,92vw)] -translate-x-1/2 flex-col-reverse gap-2" aria-label="Notices">
        {toasts.map((toast) => (
          <Toast.Root
            key={toast.id}
            toast={toast}
            swipeDirection="down"
            className={`rounded-box border px-4 py-3 data-limited:hidden ${
              toast.data?.tone === "error" ? "border-error bg-base-100" : "border-neutral bg-neutral text-neutral-content"
            }`}
          >
            <Toast.Content className="flex items-start gap-3">
              <div className="min-w-0 flex-1">
                <Toast.Title render={<p />} className={toast.data?.tone === "error" ? "font-medium text-error" : ""} />
                <Toast.Description className="text-sm opacity-80" />
              </div>
              {toast.data?.action && (
                <button
                  type="button"
                  className="btn btn-sm btn-accent"
                  onClick={() => {
                    toast.data?.action?.run();
                    close(toast.id);
                  }}
                >
                  {toast.data.action.label}
                </button>
              )}
              <button type="button" aria-label="Dismiss" className="btn btn-square btn-ghost btn-sm text-inherit hover:bg-transparent" onClick={() => close(toast.id)}>
                <X size={16} aria-hidden />
              </button>
            </Toast.Content>
          </Toast.Root>
        ))}
      </Toast.Viewport>
    </Toast.Portal>
  );
}
