import { useEffect } from "react";

/** The window's title: what is shown, then whose window it is. */
export function useTitle(words: string): void {
  useEffect(() => {
    document.title = words ? `${words} · Tall Page` : "Tall Page";
  }, [words]);
}
