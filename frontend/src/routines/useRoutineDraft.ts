import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";

import { asProblem, type Problem } from "../api/client";
import { changeRoutine } from "../api/routines";
import type { RoutineDetail, RoutineDocument } from "../api/types";

const STILL_MS = 250;

interface Draft {
  document: RoutineDocument;
  /** The last that was saved; what is shown of a sample is of this one. */
  saved: RoutineDetail;
  problem: Problem | null;
  saving: boolean;
  change: (document: RoutineDocument) => void;
}

/** A routine in hand: each change is saved shortly after it was made; what is refused stays here, with the reason. */
export function useRoutineDraft(routine: RoutineDetail): Draft {
  const queries = useQueryClient();
  const [document, setDocument] = useState(routine.document);
  const [saved, setSaved] = useState(routine);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [waiting, setWaiting] = useState(false);
  const changes = useRef(routine.changes);
  const newest = useRef<RoutineDocument | null>(null);
  const running = useRef(false);

  useEffect(() => {
    if (!waiting) return;
    const write = async () => {
      if (running.current) return; // whoever is at it goes on with the newest
      running.current = true;
      try {
        while (newest.current) {
          const next = newest.current;
          newest.current = null;
          const told = await changeRoutine(routine.id, next, changes.current);
          changes.current = told.changes;
          queries.setQueryData(["routine", routine.id], told);
          setSaved(told);
          setProblem(null);
        }
        void queries.invalidateQueries({ queryKey: ["routines"] });
      } catch (error) {
        setProblem(asProblem(error));
      } finally {
        running.current = false;
        setWaiting(newest.current !== null);
      }
    };
    const timer = setTimeout(() => void write(), STILL_MS);
    return () => clearTimeout(timer);
  }, [waiting, document, queries, routine.id]);

  const change = (next: RoutineDocument) => {
    newest.current = next;
    setDocument(next);
    setWaiting(true);
  };
  return { document, saved, problem, saving: waiting, change };
}
