import { useState } from "react";

import { asProblem } from "../api/client";
import { type OutletChange, useChangeOutlets, useOutlets } from "../api/outlets";
import { showProblem } from "../app/showProblem";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { OutletSection } from "./OutletSection";
import { OutletsFile } from "./OutletsFile";
import { moved } from "./order";

/** The places where pictures get published, and what each of their slots takes. */
export function OutletsPage() {
  useTitle("Outlets");
  const outlets = useOutlets();
  const change = useChangeOutlets();
  const [name, setName] = useState("");
  const send = (what: OutletChange, onDone?: () => void) => {
    change.mutate(what, {
      onSuccess: () => onDone?.(),
      onError: showProblem,
    });
  };
  return (
    <main className="mx-auto max-w-5xl px-6 pt-6 pb-16">
      <div className="mb-1 flex items-center gap-2">
        <h1 className="text-xl font-semibold">Outlets</h1>
        <OutletsFile any={(outlets.data?.length ?? 0) > 0} />
      </div>
      <p className="mb-6">Places where pictures get published. Each slot says how wide, how heavy and in which formats.</p>
      {outlets.isPending && <p>Fetching the outlets…</p>}
      {outlets.isError && <ProblemNote sentence={asProblem(outlets.error).sentence} hint={asProblem(outlets.error).hint} />}
      {outlets.data?.length === 0 && <p className="py-8">There are no outlets yet. Name the first place below.</p>}
      {outlets.data?.map((outlet, index, all) => (
        <OutletSection
          key={outlet.id}
          outlet={outlet}
          send={send}
          onMove={(step) => send({ kind: "order-outlets", ids: moved(all, index, step) })}
          first={index === 0}
          last={index === all.length - 1}
        />
      ))}
      <form
        className="mt-8 flex max-w-md gap-2 border-t border-base-300 pt-5"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) send({ kind: "add-outlet", name: name.trim() }, () => setName(""));
        }}
      >
        <input className="input input-sm flex-1" aria-label="Name of the new outlet" placeholder="Name of another place" maxLength={80} value={name} onChange={(event) => setName(event.target.value)} />
        <button type="submit" className="btn btn-primary btn-sm" disabled={!name.trim()}>
          Add outlet
        </button>
      </form>
    </main>
  );
}
