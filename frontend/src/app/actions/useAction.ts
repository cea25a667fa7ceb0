import { type Options, useHotkeys } from "react-hotkeys-hook";

import { type Action, type ActionId, ACTIONS } from "./registry";

/** Binds an action's keys while the component is there. They rest while somebody types in a field. */
export function useAction(id: ActionId, run: (event: KeyboardEvent) => void, options?: Options, dependencies?: unknown[]): void {
  const action: Action = ACTIONS[id];
  useHotkeys([...action.keys], run, options, dependencies);
}
