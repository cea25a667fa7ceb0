import type { Options } from "react-hotkeys-hook";

import { type ActionId, ACTIONS } from "./registry";
import { useKeys } from "./useKeys";

/** Binds the keys of one of all actions while the component is there. */
export function useAction(id: ActionId, run: (event: KeyboardEvent) => void, options?: Options, dependencies?: unknown[]): void {
  useKeys(ACTIONS[id], run, options, dependencies);
}
