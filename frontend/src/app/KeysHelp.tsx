import { useEffect, useRef } from "react";

import { helpGroups } from "./actions/registry";

/** What `?` shows. */
export function KeysHelp({ open, onClose }: { open: boolean; onClose: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const element = dialog.current;
    if (open && element && !element.open) element.showModal();
    if (!open) element?.close();
  }, [open]);
  return (
    <dialog
      ref={dialog}
      className="modal"
      aria-label="Keys"
      onClose={onClose}
      onKeyDown={(event) => {
        // While it is open, no key reaches the screen behind it.
        if (!event.currentTarget.open) return;
        event.stopPropagation();
        if (event.key === "?") onClose();
      }}
    >
      <div className="modal-box max-w-3xl border border-base-300">
        <div className="mb-4 flex items-center justify-between">
          <h2 className="text-lg font-semibold">Keys</h2>
          <button type="button" className="btn btn-sm" onClick={onClose}>
            Close
          </button>
        </div>
        <div className="gap-x-10 sm:columns-2">
          {helpGroups().map((group) => (
            <section key={group.name} className="mb-5 break-inside-avoid">
              <h3 className="mb-1 text-sm font-semibold text-info">{group.name}</h3>
              <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-sm">
                {group.rows.map((row) => (
                  <div key={row.keys} className="contents">
                    <dt className="figure whitespace-nowrap">{row.keys}</dt>
                    <dd>{row.does}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </div>
      </div>
    </dialog>
  );
}
