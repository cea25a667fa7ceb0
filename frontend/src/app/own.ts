import { create } from "zustand";

import { api } from "../api/client";

/** What somebody has set otherwise than usual, by the names of settings. */
export type Own = Readonly<Record<string, unknown>>;

const KEPT = "tallpage.own";

function kept(): Own {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? "{}") as Own;
  } catch {
    return {};
  }
}

/** What this browser knows of it, at once; the server's is fetched a moment later. */
export const useOwn = create<{ values: Own }>(() => ({ values: kept() }));

export function setOwn(values: Own): void {
  localStorage.setItem(KEPT, JSON.stringify(values));
  useOwn.setState({ values });
}

/** What a setting is, else what is usual. */
export function own<Value>(name: string, usual: Value): Value {
  return (useOwn.getState().values[name] as Value | undefined) ?? usual;
}

/** Sets one of them: here at once, on the server as soon as it answers. */
export function chooseOwn(name: string, value: unknown): void {
  setOwn({ ...useOwn.getState().values, [name]: value });
  void api.POST("/api/settings", { body: { values: { [name]: value } } }).catch(() => undefined);
}
