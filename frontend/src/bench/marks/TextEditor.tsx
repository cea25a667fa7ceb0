import { useEffect, useRef } from "react";

import type { TextMark } from "../../api/types";
import { useBench, useCut } from "../benchContext";
import { type Look, shownValue } from "./drawing/looks";
import { useUsualLooks } from "./drawing/markStyles";
import { LINE_HEIGHT, ROOM } from "./handling/geometry";
import { changeMarks } from "./markSteps";

/** A field in the same font and place as the text that is being typed. Escape and a press elsewhere keep it. */
export function TextEditor({ mark, zoom }: { mark: TextMark; zoom: number }) {
  const { store } = useBench();
  const usual = useUsualLooks();
  const styles = useCut((state) => state.document.styles) as unknown as Record<string, Look>;
  const field = useRef<HTMLTextAreaElement>(null);
  const value = <T,>(name: string, otherwise: T) => (shownValue(mark, name, styles, usual) as T | undefined) ?? otherwise;
  const size = value("size_px", 24) * zoom;

  useEffect(() => {
    const typed = field.current;
    if (!typed) return;
    typed.focus({ preventScroll: true });
    typed.select();
    return () => {
      const text = typed.value;
      if (text !== mark.text) changeMarks(store, "text typed", [mark.id], (row) => ({ ...row, text }) as TextMark);
    };
    // What was typed is kept when the field goes, whatever made it go.
    // oxlint-disable-next-line react/exhaustive-deps
  }, []);

  const align = value<"left" | "centre" | "right">("align", "left");
  const plate = value<string | null>("plate", null);
  return (
    <textarea
      ref={field}
      data-own-presses
      data-text-editor
      aria-label="Text of the mark"
      className="absolute z-10 resize-none overflow-hidden outline-2 outline-accent [field-sizing:content]"
      style={{
        left: mark.x_px * zoom,
        top: mark.y_px * zoom,
        padding: `${ROOM.down * size}px ${ROOM.across * size}px`,
        fontFamily: "Tall Page Text",
        fontWeight: value("weight", 600),
        fontSize: size,
        lineHeight: LINE_HEIGHT,
        textAlign: align === "centre" ? "center" : align,
        color: value("colour", "#1D2B2A"),
        backgroundColor: plate ?? "transparent",
        width: mark.width_px ? (mark.width_px + 2 * ROOM.across * (size / zoom)) * zoom : undefined,
        whiteSpace: mark.width_px ? "pre-wrap" : "pre",
      }}
      defaultValue={mark.text}
      onBlur={() => store.edit(null)}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Escape") {
          event.preventDefault();
          store.edit(null);
        }
      }}
    />
  );
}
