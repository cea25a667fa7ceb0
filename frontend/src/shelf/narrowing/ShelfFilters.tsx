import { Grid2x2, List, X } from "lucide-react";

import { useLabels, useLookedForBy } from "../../api/shelf";
import type { ShelfOrder } from "../../api/types";
import { screenWords } from "../../parts/figures";
import { isParticular, type Looked, ORDERS, STATES } from "./looked";

export type View = "cards" | "list";

interface Props {
  looked: Looked;
  order: ShelfOrder;
  view: View;
  onLook: (looked: Looked) => void;
  onOrder: (order: ShelfOrder) => void;
  onView: (view: View) => void;
}

/** By what captures are looked for, and how they are shown. */
export function ShelfFilters({ looked, order, view, onLook, onOrder, onView }: Props) {
  const by = useLookedForBy();
  const labels = useLabels();
  const particular = isParticular(looked);
  const say = (said: Partial<Looked>) => onLook({ ...looked, ...said });
  return (
    <div className="mb-5 flex flex-wrap items-center gap-2 text-sm" role="group" aria-label="Looked for by">
      <Choice name="Site" value={looked.host} any="any site" onChoose={(host) => say({ host })}>
        {by.data?.sites.map((row) => [row.host, `${row.host} (${row.count})`])}
      </Choice>
      <Choice name="Screen" value={looked.screen} any="any screen" onChoose={(screen) => say({ screen })}>
        {by.data?.screens.map((row) => [row.key, `${screenWords(row.screen)} (${row.count})`])}
      </Choice>
      {(labels.data?.length ?? 0) > 0 && (
        <Choice name="Label" value={looked.label} any="any label" onChoose={(label) => say({ label })}>
          {labels.data?.map((row) => [row.name, `${row.name} (${row.count})`])}
        </Choice>
      )}
      <Choice name="State" value={looked.state} onChoose={(state) => say({ state: state as Looked["state"] })}>
        {STATES.map((row) => [row.state, row.words])}
      </Choice>
      <span className="flex items-center gap-1">
        <input type="date" className="input input-sm w-34" aria-label="Taken since" title="Taken since" value={looked.since} max={looked.until || undefined} onChange={(event) => say({ since: event.target.value })} />–
        <input type="date" className="input input-sm w-34" aria-label="Taken until" title="Taken until" value={looked.until} min={looked.since || undefined} onChange={(event) => say({ until: event.target.value })} />
      </span>
      <label className="flex min-h-8 items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-xs" checked={looked.swept || particular} disabled={particular} onChange={() => say({ swept: !looked.swept })} />
        with the pages of sweeps
      </label>
      <span className="ml-auto flex items-center gap-2">
        <Choice name="Order" value={order} onChoose={(chosen) => onOrder(chosen as ShelfOrder)}>
          {ORDERS.map((row) => [row.order, row.words])}
        </Choice>
        <span className="flex" role="group" aria-label="Shown as">
          <button type="button" className={`btn btn-square btn-sm ${view === "cards" ? "" : "btn-ghost"}`} aria-pressed={view === "cards"} aria-label="As cards" title="As cards" onClick={() => onView("cards")}>
            <Grid2x2 size={16} aria-hidden />
          </button>
          <button type="button" className={`btn btn-square btn-sm ${view === "list" ? "" : "btn-ghost"}`} aria-pressed={view === "list"} aria-label="As a list" title="As a list" onClick={() => onView("list")}>
            <List size={16} aria-hidden />
          </button>
        </span>
      </span>
    </div>
  );
}

interface ChoiceProps {
  name: string;
  value: string;
  /** What it says where anything is looked for; left out where one of the rows says so. */
  any?: string;
  onChoose: (value: string) => void;
  children: (readonly [value: string, words: string])[] | undefined;
}

function Choice({ name, value, any, onChoose, children = [] }: ChoiceProps) {
  const missing = value !== "" && !children.some(([row]) => row === value);
  return (
    <span className="flex">
      <select className={`select select-sm w-auto max-w-48 ${value && any ? "border-accent" : ""}`} aria-label={name} value={value} onChange={(event) => onChoose(event.target.value)}>
        {any && <option value="">{any}</option>}
        {missing && <option value={value}>{value}</option>}
        {children.map(([row, words]) => (
          <option key={row} value={row}>
            {words}
          </option>
        ))}
      </select>
      {value && any && (
        <button type="button" className="btn btn-square btn-ghost btn-sm" aria-label={`${name}: ${any}`} title={any} onClick={() => onChoose("")}>
          <X size={14} aria-hidden />
        </button>
      )}
    </span>
  );
}
