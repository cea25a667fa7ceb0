import { useSyncExternalStore } from "react";

const query = window.matchMedia("(max-width: 639px)");

function listen(onChange: () => void): () => void {
  query.addEventListener("change", onChange);
  return () => query.removeEventListener("change", onChange);
}

/** Whether the window is as narrow as a phone's. */
export function useNarrow(): boolean {
  return useSyncExternalStore(listen, () => query.matches);
}
