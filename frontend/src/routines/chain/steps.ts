import type { RoutineDocument, RoutineStep } from "../../api/types";
import { kindOf } from "./stepKinds";

/** What stands at a place of a step, like `dressing.caption.text`. */
export function valueAt(step: RoutineStep, path: string): unknown {
  return path.split(".").reduce<unknown>((value, name) => (value as Record<string, unknown> | null | undefined)?.[name], step);
}

/** The step with another value at a place; without the place where the value is undefined. */
export function withValue(step: RoutineStep, path: string, value: unknown): RoutineStep {
  const [name = "", ...inner] = path.split(".");
  const { [name]: before, ...others } = step;
  const next = inner.length > 0 ? withValue((before ?? {}) as RoutineStep, inner.join("."), value) : value;
  return (next === undefined ? others : { ...others, [name]: next }) as RoutineStep;
}

const changed = (document: RoutineDocument, steps: RoutineStep[]): RoutineDocument => ({ ...document, steps });

/** With a step after all those that come before it in the order of work; its place as well. */
export function withStep(document: RoutineDocument, step: RoutineStep): { document: RoutineDocument; at: number } {
  const stage = kindOf(step).stage;
  const later = document.steps.findIndex((row) => kindOf(row).stage > stage);
  const at = later < 0 ? document.steps.length : later;
  return { document: changed(document, document.steps.toSpliced(at, 0, step)), at };
}

export function withoutStep(document: RoutineDocument, at: number): RoutineDocument {
  return changed(document, document.steps.toSpliced(at, 1));
}

export function replaced(document: RoutineDocument, at: number, step: RoutineStep): RoutineDocument {
  return changed(document, document.steps.toSpliced(at, 1, step));
}

export function duplicated(document: RoutineDocument, at: number): RoutineDocument {
  const step = document.steps[at];
  return step ? changed(document, document.steps.toSpliced(at + 1, 0, structuredClone(step))) : document;
}

/** Whether a step may go one place on: its neighbour belongs to the same stage of the work. */
export function mayMove(document: RoutineDocument, at: number, by: 1 | -1): boolean {
  const [step, other] = [document.steps[at], document.steps[at + by]];
  return step !== undefined && other !== undefined && kindOf(step).stage === kindOf(other).stage;
}

export function moved(document: RoutineDocument, at: number, by: 1 | -1): RoutineDocument {
  const step = document.steps[at];
  return step && mayMove(document, at, by) ? changed(document, document.steps.toSpliced(at, 1).toSpliced(at + by, 0, step)) : document;
}

/** Which fields may be asked for when it runs: single values. */
export function isAskable(step: RoutineStep, path: string): boolean {
  const value = valueAt(step, path);
  return typeof value === "string" || typeof value === "number" || typeof value === "boolean";
}

/** The step with a field that is asked for when it runs, or that is not any more. */
export function asking(step: RoutineStep, path: string, words: string, asked: boolean): RoutineStep {
  const others = (step.ask ?? []).filter((row) => row.field !== path);
  const name = (path.split(".").at(-1) ?? "value").replace(/_(px|bytes)$/, "").replaceAll("_", "-");
  const ask = asked ? [...others, { name, field: path, words }] : others;
  return withValue(step, "ask", ask.length > 0 ? ask : undefined);
}

/** The step with some fields of one of its parts changed: a mark, an area, a band. */
export function withPart(step: RoutineStep, list: string, at: number, more: object): RoutineStep {
  const parts = (step[list] ?? []) as object[];
  return { ...step, [list]: parts.map((part, index) => (index === at ? { ...part, ...more } : part)) };
}

/** The step without one of them. */
export function withoutPart(step: RoutineStep, list: string, at: number): RoutineStep {
  return { ...step, [list]: ((step[list] ?? []) as object[]).toSpliced(at, 1) };
}
