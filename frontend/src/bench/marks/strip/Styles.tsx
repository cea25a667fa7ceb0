import { Check, Pin, Trash2 } from "lucide-react";
import { useState } from "react";

import type { Mark, MarkStyle } from "../../../api/types";
import { Panel } from "../../../parts/Panel";
import { useBench, useCut } from "../../benchContext";
import type { Look } from "../drawing/looks";
import { dressMarks, styleOf, useMarkStyles, useUsualLooks } from "../drawing/markStyles";
import { KIND_WORDS } from "../handling/geometry";

/** Looks with a name: give one to the marks in hand, keep theirs, or say that new ones begin with it. */
export function Styles({ marks, first }: { marks: Mark[]; first: Mark }) {
  const { store } = useBench();
  const usual = useUsualLooks();
  const { styles, keep, remove } = useMarkStyles();
  const own = useCut((state) => state.document.styles) as unknown as Record<string, Look>;
  const [name, setName] = useState("");
  const kinds = KIND_WORDS[first.kind].toLowerCase();
  const here = Object.entries(own).flatMap(([known, look]) => (styles.some((row) => row.name === known) ? [] : [{ name: known, look, usual_for: [] }]));
  const dress = (style: MarkStyle) => dressMarks(store, marks.map((mark) => mark.id), style);
  const keepLook = async () => {
    const kept = await keep({ name, look: styleOf(first, own, usual), usual_for: styles.find((row) => row.name === name)?.usual_for ?? [] });
    if (!kept) return;
    dress(kept);
    setName("");
  };
  const turnUsual = (style: MarkStyle) => {
    const others = style.usual_for.filter((kind) => kind !== first.kind);
    return keep({ ...style, usual_for: others.length < style.usual_for.length ? others : [...others, first.kind] });
  };
  return (
    <Panel label={<span className="max-w-24 truncate">{first.style ?? "Style"}</span>} name="Styles of marks" button="btn-ghost btn-xs" size="w-80">
      {styles.length + here.length === 0 && <p className="mb-3 text-info">No style has a name yet. Keep this look under one, to use it again in any cut.</p>}
      <ul className="mb-3">
        {[...styles, ...here].map((style) => {
          const isUsual = style.usual_for.includes(first.kind);
          const kept = styles.includes(style);
          return (
            <li key={style.name} className="flex items-center gap-1">
              <button type="button" className="btn min-w-0 grow justify-start btn-ghost btn-sm" aria-pressed={first.style === style.name} onClick={() => dress(style)}>
                <Check size={14} aria-hidden className={first.style === style.name ? "" : "invisible"} />
                <span className="truncate">{style.name}</span>
              </button>
              {kept && (
                <>
                  <button type="button" className={`btn btn-square btn-xs ${isUsual ? "btn-neutral" : "btn-ghost"}`} aria-pressed={isUsual} aria-label={`${style.name}: the usual one for each new ${kinds}`} title={`The usual one: each new ${kinds} begins with it`} onClick={() => void turnUsual(style)}>
                    <Pin size={14} aria-hidden />
                  </button>
                  <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Forget ${style.name}`} title="Forget it; marks that have it stay as they are" onClick={() => void remove(style.name)}>
                    <Trash2 size={14} aria-hidden />
                  </button>
                </>
              )}
            </li>
          );
        })}
      </ul>
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void keepLook();
        }}
      >
        <label className="grow">
          Keep this look as
          <input className="input input-sm w-full" maxLength={60} value={name} placeholder={`Name, like “Calm ${kinds}”`} onChange={(event) => setName(event.target.value)} />
        </label>
        <button type="submit" className="btn btn-sm" disabled={name.trim() === ""}>
          Keep
        </button>
      </form>
    </Panel>
  );
}
