import { useState } from "react";

import { connection, useLive } from "./connection";
import { keyInput } from "./pointing";

const KEYS = [
  { words: "Next field", key: "Tab", code: "Tab", keyCode: 9, shiftKey: false },
  { words: "Previous field", key: "Tab", code: "Tab", keyCode: 9, shiftKey: true },
  { words: "Press Enter", key: "Enter", code: "Enter", keyCode: 13, shiftKey: false },
] as const;

/** Typing into the page for whoever does not see it, or writes by other means than keys. */
export function LiveTyping() {
  const focus = useLive((state) => state.focus);
  const [text, setText] = useState("");
  const press = ({ key, code, keyCode, shiftKey }: (typeof KEYS)[number]) => {
    const event = { key, code, keyCode, shiftKey, altKey: false, ctrlKey: false, metaKey: false, repeat: false };
    connection.input(keyInput("down", event));
    connection.input(keyInput("up", event));
  };
  return (
    <form
      className="mt-2 flex flex-wrap items-center gap-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (text) connection.input({ kind: "text", text });
        setText("");
      }}
    >
      <p className="sr-only" aria-live="polite">
        {focus ? `The page’s focus is on ${focus.label || "something without a name"}, ${focus.of}.` : "Nothing on the page has the focus."}
      </p>
      <input data-live-typing className="input input-sm w-56" aria-label="Text to type into the page" placeholder={focus?.typed ? `Type into “${focus.label || focus.of}”` : "Type into the page"} value={text} onChange={(event) => setText(event.target.value)} />
      <button type="submit" className="btn btn-sm" disabled={!text}>
        Type
      </button>
      {KEYS.map((row) => (
        <button key={row.words} type="button" className="btn btn-ghost btn-sm" onClick={() => press(row)}>
          {row.words}
        </button>
      ))}
      <span className="ml-auto">F6 leaves the page with the keyboard.</span>
    </form>
  );
}
