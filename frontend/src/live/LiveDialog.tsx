import { useEffect, useRef, useState } from "react";

import { connection, useLive } from "./connection";
import type { Choices, Dialog } from "./messages";

/** What the page asks, and the lists it opens: the server's browser would show them where nobody sees them. */
export function LiveDialog() {
  const dialog = useLive((state) => state.dialog);
  const choices = useLive((state) => state.choices);
  if (dialog) return <Asked key={dialog.message} dialog={dialog} />;
  return choices && <Listed choices={choices} />;
}

function Asked({ dialog }: { dialog: Dialog }) {
  const place = useRef<HTMLDialogElement>(null);
  const [text, setText] = useState(dialog.default);
  useEffect(() => place.current?.showModal(), []);
  const answer = (accept: boolean) => connection.send({ kind: "answer", accept, text });
  return (
    <dialog
      ref={place}
      className="modal"
      aria-labelledby="page-asks"
      onCancel={(event) => {
        event.preventDefault();
        answer(false);
      }}
    >
      <form
        className="modal-box max-w-md border border-base-300"
        onSubmit={(event) => {
          event.preventDefault();
          answer(true);
        }}
      >
        <h2 id="page-asks" className="mb-2 font-semibold">
          {dialog.asks === "alert" ? "The page says" : "The page asks"}
        </h2>
        <p className="break-words whitespace-pre-line">{dialog.message || "To leave it: what was typed may be lost."}</p>
        {dialog.asks === "prompt" && <input className="input mt-3 w-full" aria-label="Your answer" value={text} onChange={(event) => setText(event.target.value)} autoFocus />}
        <div className="mt-4 flex justify-end gap-2">
          {dialog.asks !== "alert" && (
            <button type="button" className="btn btn-sm" onClick={() => answer(false)}>
              Cancel
            </button>
          )}
          <button type="submit" className="btn btn-primary btn-sm">
            {dialog.asks === "beforeunload" ? "Leave" : "OK"}
          </button>
        </div>
      </form>
    </dialog>
  );
}

function Listed({ choices }: { choices: Choices }) {
  const place = useRef<HTMLDialogElement>(null);
  useEffect(() => place.current?.showModal(), []);
  const close = () => useLive.setState({ choices: null });
  return (
    <dialog ref={place} className="modal" aria-labelledby="page-list" onClose={close}>
      <div className="modal-box max-w-sm border border-base-300">
        <h2 id="page-list" className="mb-2 font-semibold">
          Choose from the page’s list
        </h2>
        <ul className="grid max-h-96 gap-1 overflow-auto">
          {choices.options.map((option, number) => (
            <li key={`${number} ${option}`}>
              <button
                type="button"
                className="btn btn-ghost btn-sm w-full justify-start"
                aria-current={number === choices.chosen}
                autoFocus={number === choices.chosen}
                onClick={() => {
                  connection.send({ kind: "choose", number });
                  close();
                }}
              >
                {option || "(nothing)"}
              </button>
            </li>
          ))}
        </ul>
        <button type="button" className="btn btn-sm mt-3" onClick={close}>
          Leave as it is
        </button>
      </div>
    </dialog>
  );
}
