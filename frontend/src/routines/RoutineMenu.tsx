import { Workflow } from "lucide-react";
import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";

import { useRoutines, useStartRun } from "../api/routines";
import type { Routine, RunIn } from "../api/types";
import { useAction } from "../app/actions/useAction";
import { useNotices } from "../app/notices";
import { showProblem } from "../app/showProblem";
import { ClosingButton, Panel } from "../parts/Panel";
import { Answers, type Values } from "./Answers";

interface Props {
  /** What is run over; asked for when it is begun. */
  over: () => RunIn;
  /** What that is, in words: “12 captures”. */
  words: string;
  label?: string;
  button?: string;
  iconOnly?: boolean;
  onStarted?: () => void;
  /** What stands above the routines. */
  children?: ReactNode;
}

/** The routines at hand: one press, or Alt and a digit, runs one over what is here. */
export function RoutineMenu({ over, words, label = "Run a routine", button = "", iconOnly = false, onStarted, children }: Props) {
  const routines = useRoutines();
  const start = useStartRun();
  const navigate = useNavigate();
  const show = useNotices((state) => state.show);
  const [asking, setAsking] = useState<Routine | null>(null);
  const [values, setValues] = useState<Values>({});
  const rows = routines.data ?? [];
  const run = (routine: Routine, answers: Values = {}) =>
    start.mutate(
      { routineId: routine.id, ...over(), values: answers },
      {
        onError: showProblem,
        onSuccess: (made) => {
          onStarted?.();
          show({ tone: "info", text: `“${routine.name}” runs over ${words}.`, action: { label: "Show", run: () => void navigate(`/runs/${made.id}`) } });
        },
      },
    );
  useAction(
    "runRoutine",
    (event) => {
      const digit = Number(/\d$/.exec(event.code)?.[0]);
      const routine = rows.find((row) => row.key === digit);
      if (routine) run(routine);
    },
    { preventDefault: true },
    [rows, over, words],
  );
  return (
    <Panel name={`${label}: ${words}`} size="w-80" button={button} label={<><Workflow size={iconOnly ? 16 : 15} aria-hidden /> {!iconOnly && label}</>}>
      {asking ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            run(asking, values);
            setAsking(null);
          }}
        >
          <p className="mb-2 font-semibold">{asking.name}</p>
          <Answers questions={asking.questions} values={values} onChange={setValues} />
          <span className="mt-3 flex gap-2">
            <button type="button" className="btn btn-sm" onClick={() => setAsking(null)}>
              Back
            </button>
            <button type="submit" className="btn btn-primary btn-sm">
              Run
            </button>
          </span>
        </form>
      ) : (
        <>
        {children && <div className="mb-3 border-b border-base-300 pb-3">{children}</div>}
        {children && rows.length > 0 && <p className="mb-1 font-semibold">Run over {words}</p>}
        <ul className="max-h-72 overflow-y-auto">
          {rows.map((routine) => {
            const inner = (
              <>
                <span className="min-w-0 flex-1 truncate">{routine.name}</span>
                {routine.questions.length > 0 && <span className="text-info">asks</span>}
                {routine.key !== null && <span className="figure">Alt + {routine.key}</span>}
              </>
            );
            const look = "flex w-full items-center gap-3 px-2 py-1 text-left hover:bg-base-200";
            return (
              <li key={routine.id}>
                {routine.questions.length > 0 ? (
                  <button
                    type="button"
                    className={look}
                    onClick={() => {
                      setValues({});
                      setAsking(routine);
                    }}
                  >
                    {inner}
                  </button>
                ) : (
                  <ClosingButton className={look} onClick={() => run(routine)}>
                    {inner}
                  </ClosingButton>
                )}
              </li>
            );
          })}
        </ul>
        </>
      )}
      {routines.isSuccess && rows.length === 0 && <p>There is no routine yet. Make one under Routines, or keep what was done on the Bench as one.</p>}
    </Panel>
  );
}
