import { type Options, useHotkeys } from "react-hotkeys-hook";

import { type Action, EVERYWHERE } from "./everywhere";
import { useOwnKeys } from "./ownKeys";

/** Binds an action's keys while the component is there. They rest while somebody types in a field. */
export function useActionKeys(id: string, { keys }: Action, run: (event: KeyboardEvent) => void, options?: Options, dependencies?: unknown[]): void {
  const own = useOwnKeys((state) => state.own[id]);
  useHotkeys([...(own ?? keys)], run, options, own && dependencies ? [...dependencies, own] : dependencies);
}

/** Binds the keys of an action of every screen. */
export function useKeys(id: keyof typeof EVERYWHERE, run: (event: KeyboardEvent) => void, options?: Options): void {
  useActionKeys(id, EVERYWHERE[id], run, options);
}
