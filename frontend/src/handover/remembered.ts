import { useState } from "react";

/** What was said the last time, kept in this browser. */
export function useRemembered<T extends object>(name: string, usual: T): [T, (change: Partial<T>) => void] {
  const key = `tallpage.handover.${name}`;
  const [value, setValue] = useState<T>(() => ({ ...usual, ...read(key) }));
  const change = (some: Partial<T>) => {
    const next = { ...value, ...some };
    setValue(next);
    localStorage.setItem(key, JSON.stringify(next));
  };
  return [value, change];
}

function read(key: string): object {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(key) ?? "{}");
    return typeof stored === "object" && stored !== null ? stored : {};
  } catch {
    return {};
  }
}
