import type { Options } from "react-hotkeys-hook";

import { type ActionId, ACTIONS } from "./registry";
import { useActionKeys } from "./useKeys";

/** Binds the keys of one of all actions while the component is there. */
export function useAction(id: ActionId, run: (event: KeyboardEvent) => void, options?: Options, dependencies?: unknown[]): void {
  useActionKeys(id, ACTIONS[id], run, options, dependencies);
}
