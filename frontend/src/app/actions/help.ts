import { type Action, shownKeys, withOwnKeys } from "./registry";
import { useOwnKeys } from "./ownKeys";

/** What `?` shows beside the keys: what is done by other means. */
const GESTURES: { group: string; shown: string; words: string }[] = [
  { group: "Bench: looking", shown: "Page Up / Down, Home, End", words: "move along the page" },
  { group: "Bench: looking", shown: "Ctrl + wheel", words: "closer or farther, at the pointer" },
  { group: "Bench: looking", shown: "Space + drag", words: "move the page under the view" },
  { group: "Bench: cutting", shown: "Click", words: "frame the block under the pointer" },
  { group: "Bench: cutting", shown: "Shift + click", words: "join the block under the pointer" },
  { group: "Bench: cutting", shown: "Alt + wheel", words: "the block around, or inside" },
  { group: "Bench: pointing", shown: "Shift + drag", words: "a corner: keep the proportions; the handle above: turn by 15°" },
  { group: "Bench: pointing", shown: "Alt + drag", words: "do not snap" },
  { group: "Bench: pointing", shown: "Double press", words: "type a text" },
];

export interface Group {
  name: string;
  rows: { keys: string; does: string }[];
}

/** All of it in groups, in the order of the registry. */
export function helpGroups(actions: Record<string, Action> = withOwnKeys(useOwnKeys.getState().own)): Group[] {
  const rows = [
    ...Object.values(actions).map((action) => ({ group: action.group, shown: shownKeys(action), words: action.words })),
    ...GESTURES,
  ];
  const names = [...new Set(rows.map((row) => row.group))];
  return names.map((name) => ({
    name,
    rows: rows.filter((row) => row.group === name).map((row) => ({ keys: row.shown, does: row.words })),
  }));
}
