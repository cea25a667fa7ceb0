import { useState } from "react";

import type { ControlProps } from "./Control";

/** A line of text; it counts when it is left, or with Enter. */
export function LineField({ setting, onChoose }: ControlProps) {
  const [text, setText] = useState(setting.value as string);
  const give = () => text.trim() !== setting.value && onChoose(text);
  return (
    <input
      className="input input-sm w-full"
      aria-labelledby={`words-${setting.name}`}
      spellCheck={false}
      placeholder={(setting.usual as string) || "none"}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={give}
      onKeyDown={(event) => {
        if (event.key === "Enter") give();
        if (event.key === "Escape") setText(setting.value as string);
      }}
    />
  );
}
