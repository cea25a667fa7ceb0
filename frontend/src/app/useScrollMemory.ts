import { type RefObject, useEffect, useState } from "react";
import { NavigationType, useLocation, useNavigationType } from "react-router";

const places = new Map<string, number>();
const MOST_PLACES = 200;
/** For how long a page that is gone back to may grow until it reaches where it was left. */
const GROWS_MS = 3_000;

const states = new Map<string, unknown>();

/** As `useState`, for what is to be as it was left when somebody comes back to this step of the history. */
export function useLeftState<State>(name: string, first: State) {
  const { key } = useLocation();
  const back = useNavigationType() === NavigationType.Pop;
  const entry = `${key} ${name}`;
  const [state, setState] = useState<State>(() => (back && states.has(entry) ? (states.get(entry) as State) : first));
  useEffect(() => {
    states.delete(entry);
    states.set(entry, state);
    const oldest = states.keys().next().value;
    if (states.size > MOST_PLACES && oldest !== undefined) states.delete(oldest);
  }, [entry, state]);
  return [state, setState] as const;
}

/**
 * Keeps where a part is scrolled to, for each step of the browser's history. Whoever goes back is where they
 * were; whoever goes on begins at the top.
 */
export function useScrollMemory(scroller: RefObject<HTMLElement | null>, name: string): void {
  const { key, pathname } = useLocation();
  const back = useNavigationType() === NavigationType.Pop;
  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const entry = `${key} ${name}`;
    const note = () => {
      places.delete(entry);
      places.set(entry, element.scrollTop);
      const oldest = places.keys().next().value;
      if (places.size > MOST_PLACES && oldest !== undefined) places.delete(oldest);
    };
    element.addEventListener("scroll", note, { passive: true });
    return () => element.removeEventListener("scroll", note);
  }, [scroller, key, name]);
  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const left = back ? (places.get(`${key} ${name}`) ?? 0) : 0;
    element.scrollTo({ top: left });
    if (!left || !element.firstElementChild) return;
    const growing = new ResizeObserver(() => {
      if (element.scrollHeight - element.clientHeight < left) return;
      element.scrollTo({ top: left });
      growing.disconnect();
    });
    growing.observe(element.firstElementChild);
    const end = setTimeout(() => growing.disconnect(), GROWS_MS);
    return () => {
      clearTimeout(end);
      growing.disconnect();
    };
    // A search that is typed is no new screen.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [scroller, pathname, name]);
}
