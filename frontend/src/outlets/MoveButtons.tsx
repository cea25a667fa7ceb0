import { ArrowDown, ArrowUp } from "lucide-react";

export interface MoveProps {
  first: boolean;
  last: boolean;
  onMove: (step: 1 | -1) => void;
}

/** Up or down by one in its list. */
export function MoveButtons({ name, first, last, onMove }: MoveProps & { name: string }) {
  return (
    <>
      <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Move ${name} up`} title="Move up" disabled={first} onClick={() => onMove(-1)}>
        <ArrowUp size={14} aria-hidden />
      </button>
      <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Move ${name} down`} title="Move down" disabled={last} onClick={() => onMove(1)}>
        <ArrowDown size={14} aria-hidden />
      </button>
    </>
  );
}
