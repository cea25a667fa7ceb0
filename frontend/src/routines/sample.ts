import { useState } from "react";
import { useSearchParams } from "react-router";

const KEPT = "tallpage.routines.sample";

/** On which capture routines are tried: the one in the address, the one of the last time, else the latest. */
export function useSample(latest: readonly number[]): [number | null, (id: number) => void] {
  const [search, setSearch] = useSearchParams();
  const [kept] = useState(() => Number(localStorage.getItem(KEPT)) || null);
  const asked = Number(search.get("sample")) || null;
  const chosen = asked ?? (kept !== null && latest.includes(kept) ? kept : (latest[0] ?? null));
  return [
    chosen,
    (id) => {
      localStorage.setItem(KEPT, String(id));
      setSearch({ sample: String(id) }, { replace: true });
    },
  ];
}
