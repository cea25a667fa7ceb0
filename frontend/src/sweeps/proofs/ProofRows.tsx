import type { Virtualizer } from "@tanstack/react-virtual";
import { type RefObject } from "react";
import { Link } from "react-router";

import type { Sweep, SweepRow } from "../../api/types";
import { screenWords } from "../../parts/figures";
import type { Place } from "./moving";
import { ProofCell } from "./ProofCell";
import { HEAD_PX, type ProofShape } from "./proofShape";

interface Props {
  sweep: Sweep;
  scroller: RefObject<HTMLDivElement | null>;
  virtual: Virtualizer<HTMLDivElement, Element>;
  shape: ProofShape;
  place: Place;
  /** What there is to say when no row is. */
  empty: string;
  rowAt: (index: number) => SweepRow | undefined;
  onOpen: (place: Place) => void;
}

/** The proofs: a row a page, a column a screen, whose heads stay in sight. Only rows near the view are there. */
export function ProofRows({ sweep, scroller, virtual, shape, place, empty, rowAt, onOpen }: Props) {
  const edge = "px-3 sm:px-6";
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto outline-none" tabIndex={0} role="region" aria-label="Proofs" data-proofs>
      {empty && <p className="py-12 text-center">{empty}</p>}
      <div className="min-w-max">
        <div className={`sticky top-0 z-10 flex items-center gap-4 border-b border-base-300 bg-base-100 text-xs ${edge}`} style={{ height: HEAD_PX }} data-heads>
          {shape.labelPx > 0 && <span style={{ width: shape.labelPx }}>Page</span>}
          {sweep.screens.map((screen, at) => (
            <span key={at} className="figure truncate" style={{ width: shape.thumbPx }}>
              {screenWords(screen)}
            </span>
          ))}
        </div>
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const page = rowAt(item.index);
            return (
              <div key={item.key} className={`absolute inset-x-0 border-b border-base-200 pt-3 ${edge} ${shape.labelPx > 0 ? "flex gap-4" : ""}`} style={{ top: item.start - HEAD_PX, height: shape.rowPx }}>
                {page && (
                  <>
                    <Label page={page} shape={shape} />
                    <div className="flex gap-4">
                      {page.gone && <Gone page={page} sweep={sweep} />}
                      {page.shots.map((shot, column) => (
                        <ProofCell
                          key={shot.id}
                          shot={shot}
                          title={page.title || page.address}
                          widthPx={shape.thumbPx}
                          heightPx={shape.heightPx}
                          here={place.row === item.index && place.column === column}
                          onOpen={() => onOpen({ row: item.index, column })}
                        />
                      ))}
                    </div>
                  </>
                )}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** Which page a row is: beside its pictures, or on a narrow screen above them. */
function Label({ page, shape }: { page: SweepRow; shape: ProofShape }) {
  const title = page.title || (page.gone ? "Gone" : "No title yet");
  const address = page.address.replace(/^https?:\/\//, "");
  if (shape.labelPx === 0)
    return (
      <p className="sticky left-3 mb-1 w-[calc(100vw-1.5rem)] truncate text-sm leading-5">
        <span className="figure text-xs">{page.number}</span> <span className="font-medium">{title}</span>
        <span className="block truncate text-xs">{address}</span>
      </p>
    );
  return (
    <div className="shrink-0 text-sm" style={{ width: shape.labelPx }}>
      <p className="figure text-xs">{page.number}</p>
      <p className="line-clamp-2 font-medium">{title}</p>
      <p className="line-clamp-3 text-xs break-all">{address}</p>
    </div>
  );
}

function Gone({ page, sweep }: { page: SweepRow; sweep: Sweep }) {
  return (
    <p className="pt-5 text-sm">
      Its site lists it no more.{" "}
      {sweep.previous_id !== null && (
        <Link className="link" to={`/sweeps/${sweep.previous_id}?words=${encodeURIComponent(page.address)}`}>
          As it was
        </Link>
      )}
    </p>
  );
}
