import { Send } from "lucide-react";
import { lazy, Suspense } from "react";

import type { Output, What } from "../api/types";
import { Panel } from "../parts/Panel";

const Ways = lazy(() => import("./Ways").then((module) => ({ default: module.Ways })));

export interface Handed {
  what: What;
  /** What it is, in words: “720 px”, “Cut 1”, “12 captures”. */
  name: string;
  /** The row of the ledger, where it is one. */
  output?: Output;
  /** The page's address, where there is one page. */
  address?: string;
}

/** The ways out for something that can be given away. */
export function HandOverPanel({ handed, label, button }: { handed: Handed; label?: string; button?: string }) {
  return (
    <Panel
      name={`Hand over ${handed.name}`}
      size="w-[40rem] p-0!"
      {...(button !== undefined && { button })}
      label={
        <>
          <Send size={15} aria-hidden /> {label ?? "Hand over"}
        </>
      }
    >
      <Suspense fallback={<p className="p-4">Fetching the ways out…</p>}>
        <Ways handed={handed} />
      </Suspense>
    </Panel>
  );
}
