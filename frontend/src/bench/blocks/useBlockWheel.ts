import { useEffect, useEffectEvent } from "react";

/** With Alt held, a turn of the wheel goes to the block around (1), or to the one inside (-1). */
export function useBlockWheel(scroller: HTMLElement | null, onTurn: (towards: 1 | -1) => void): void {
  const turned = useEffectEvent(onTurn);
  useEffect(() => {
    if (!scroller) return;
    const turn = (event: WheelEvent) => {
      if (!event.altKey || event.ctrlKey) return;
      event.preventDefault();
      turned(event.deltaY < 0 ? 1 : -1);
    };
    scroller.addEventListener("wheel", turn, { passive: false });
    return () => scroller.removeEventListener("wheel", turn);
  }, [scroller]);
}
