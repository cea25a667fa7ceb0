import { Dialog } from "@base-ui/react/dialog";
import { Link } from "react-router";

import { helpGroups } from "./actions/help";

/** What `?` shows. */
export function KeysHelp({ onClose }: { onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={(shown) => !shown && onClose()}>
      <Dialog.Portal>
        <Dialog.Backdrop className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Popup
          aria-label="Keys"
          className="fixed inset-0 z-40 m-auto h-fit max-h-[90dvh] w-[min(48rem,92vw)] overflow-y-auto border border-base-300 bg-base-100 p-6"
          onKeyDown={(event) => {
            // While it is open, no key reaches the screen behind it.
            event.stopPropagation();
            if (event.key === "?" || event.key === "Escape") onClose();
          }}
        >
          <div className="mb-4 flex items-center justify-between">
            <Dialog.Title className="text-lg font-semibold">Keys</Dialog.Title>
            <span className="flex gap-2">
              <Link to="/keys" className="btn btn-sm" onClick={onClose}>
                Change keys
              </Link>
              <Dialog.Close className="btn btn-sm">Close</Dialog.Close>
            </span>
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
        </Dialog.Popup>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
