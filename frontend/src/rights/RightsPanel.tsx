import { Scale } from "lucide-react";
import { lazy, Suspense } from "react";

import type { RightsOut } from "../api/types";
import { Panel } from "../parts/Panel";

const RightsForm = lazy(() => import("./RightsForm").then((module) => ({ default: module.RightsForm })));

interface Props {
  ids: readonly number[];
  /** What is noted already, where it is one capture. */
  rights?: RightsOut;
}

/** What is known of the rights of one capture or of several. */
export function RightsPanel({ ids, rights }: Props) {
  const words = rights?.words ? `Rights: ${rights.words}` : "Rights";
  const open = rights !== undefined && !rights.cleared;
  return (
    <Panel
      name={words}
      button={rights ? (open ? "btn-ghost" : "btn-square btn-ghost") : ""}
      label={
        <>
          <Scale size={16} aria-hidden /> {!rights ? "Rights" : open && words}
        </>
      }
    >
      <Suspense fallback={<p>Fetching what is noted…</p>}>
        <RightsForm ids={ids} rights={rights} />
      </Suspense>
    </Panel>
  );
}
