import { type Options, useHotkeys } from "react-hotkeys-hook";

import type { Action } from "./everywhere";

/** Binds an action's keys while the component is there. They rest while somebody types in a field. */
export function useKeys({ keys }: Action, run: (event: KeyboardEvent) => void, options?: Options, dependencies?: unknown[]): void {
  useHotkeys([...keys], run, options, dependencies);
}
