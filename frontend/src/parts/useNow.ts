import { useEffect, useState } from "react";

const STEP_MS = 30_000;

/** The time, renewed every half minute, for “3 min ago”. */
export function useNow(): Date {
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date()), STEP_MS);
    return () => clearInterval(timer);
  }, []);
  return now;
}
