import { type RefObject, useEffect, useLayoutEffect, useState } from "react";
import { NavigationType, useLocation, useNavigationType } from "react-router";

const MOST_KEPT = 200;
/** For how long a page that is gone back to may grow until it reaches where it was left. */
const GROWS_MS = 3_000;

/** What was left at the steps of the browser's history, the latest last; the oldest goes when there are many. */
const left = new Map<string, unknown>();

function keep(entry: string, value: unknown): void {
  left.delete(entry);
  left.set(entry, value);
  const oldest = left.keys().next().value;
  if (left.size > MOST_KEPT && oldest !== undefined) left.delete(oldest);
}

/** A `useState` whose value is there again when somebody comes back to this step of the history. */
export function useLeftState<State>(name: string, first: State) {
  const { key } = useLocation();
  const back = useNavigationType() === NavigationType.Pop;
  const entry = `${key} ${name}`;
  const [state, setState] = useState<State>(() => (back && left.has(entry) ? (left.get(entry) as State) : first));
  useEffect(() => keep(entry, state), [entry, state]);
  return [state, setState] as const;
}

/**
 * Keeps where a part is scrolled to, for each step of the browser's history. Whoever goes back is where they
 * were; whoever goes on begins at the top.
 */
export function useScrollMemory(scroller: RefObject<HTMLElement | null>, name: string): void {
  const { key, pathname } = useLocation();
  const back = useNavigationType() === NavigationType.Pop;
  const entry = `${key} ${name} scrolled`;
  // At once with the new screen: what it scrolls by being shorter is not where the last one was left.
  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const note = () => keep(entry, element.scrollTop);
    element.addEventListener("scroll", note, { passive: true });
    return () => element.removeEventListener("scroll", note);
  }, [scroller, entry]);
  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const top = back && left.has(entry) ? (left.get(entry) as number) : 0;
    element.scrollTo({ top });
    if (top === 0 || !element.firstElementChild) return;
    const growing = new ResizeObserver(() => {
      if (element.scrollHeight - element.clientHeight < top) return;
      element.scrollTo({ top });
      growing.disconnect();
    });
    growing.observe(element.firstElementChild);
    const end = setTimeout(() => growing.disconnect(), GROWS_MS);
    return () => {
      clearTimeout(end);
      growing.disconnect();
    };
    // A search that is typed is no new screen.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [scroller, pathname, name]);
}
