import { type Action, EVERYWHERE, type Scope } from "./everywhere";
import { type OwnKeys, useOwnKeys } from "./ownKeys";

export type { Action } from "./everywhere";

/** Which scopes hear their keys at the same time as one: those around it. */
const AROUND: Record<Scope, readonly Scope[]> = {
  everywhere: [],
  shelf: ["everywhere"],
  proofs: ["everywhere"],
  large: ["proofs", "everywhere"],
  bench: ["everywhere"],
  compare: ["everywhere"],
  grab: ["everywhere"],
};

const withShift = (keys: readonly string[], held = "shift") => [...keys, ...keys.map((key) => `${held}+${key}`)];
const ARROWS = ["left", "right", "up", "down"] as const;
const ALT_ARROWS = ARROWS.map((key) => `alt+${key}`);

export const ACTIONS = {
  ...EVERYWHERE,
  runRoutine: {
    scope: "everywhere",
    group: "Everywhere",
    words: "run the routine that has this digit over what is here",
    keys: ["1", "2", "3", "4", "5", "6", "7", "8", "9"].map((digit) => `alt+${digit}`),
    shown: "Alt + 1 … 9",
    fixed: true,
  },
  search: { scope: "shelf", group: "Everywhere", words: "search, on the shelf", keys: ["/"], fixed: true },

  grab: { scope: "grab", group: "Everywhere", words: "grab what is shared, on the screen for that", keys: ["p"] },

  nextPicture: { scope: "proofs", group: "Sweep: skimming", words: "next picture", keys: ARROWS, shown: "← → ↑ ↓", fixed: true },
  large: { scope: "proofs", group: "Sweep: skimming", words: "large view", keys: ["enter"] },
  mark: { scope: "proofs", group: "Sweep: skimming", words: "keep, retake, drop, or none of them", keys: ["k", "r", "d", "u"], fixed: true },
  before: { scope: "large", group: "Sweep: skimming", words: "in the large view: as it was the last time", keys: ["b"] },
  nextChange: { scope: "large", group: "Sweep: skimming", words: "in the large view: the next place that changed", keys: ["c"] },

  actual: { scope: "bench", group: "Bench: looking", words: "actual pixels", keys: ["1"] },
  double: { scope: "bench", group: "Bench: looking", words: "two to one", keys: ["2"] },
  fitWidth: { scope: "bench", group: "Bench: looking", words: "fit the width", keys: ["0"] },
  fitPage: { scope: "bench", group: "Bench: looking", words: "fit the whole page", keys: ["9"] },
  closer: { scope: "bench", group: "Bench: looking", words: "closer", keys: ["equal", "shift+equal"], shown: "+" },
  farther: { scope: "bench", group: "Bench: looking", words: "farther", keys: ["minus"], shown: "-" },

  stageBefore: { scope: "bench", group: "Bench: the order of work", words: "the stage before: part, point, hide, dress", keys: ["comma"], shown: "," },
  stageNext: { scope: "bench", group: "Bench: the order of work", words: "the next stage", keys: ["period"], shown: "." },

  nudge: { scope: "bench", group: "Bench: cutting", words: "move the frame, or the marks in hand, by 1 px (Shift: 10 px)", keys: withShift(ARROWS), shown: "Arrows", fixed: true },
  stretch: {
    scope: "bench",
    group: "Bench: cutting",
    words: "move its right or lower edge (Shift: 10 px)",
    keys: withShift(ALT_ARROWS),
    shown: "Alt + arrows",
    fixed: true,
  },
  wholePage: { scope: "bench", group: "Bench: cutting", words: "frame the whole page", keys: ["p"] },
  fold: { scope: "bench", group: "Bench: cutting", words: "fold a band of the page away", keys: ["f"] },
  blockAround: { scope: "bench", group: "Bench: cutting", words: "frame the block that holds what is framed", keys: ["bracketleft"], shown: "[" },
  blockInside: { scope: "bench", group: "Bench: cutting", words: "frame the block inside", keys: ["bracketright"], shown: "]" },
  measure: { scope: "bench", group: "Bench: looking", words: "measure between two points", keys: ["q"] },
  trim: { scope: "bench", group: "Bench: cutting", words: "trim plain edges", keys: ["x"] },
  layAside: { scope: "bench", group: "Bench: cutting", words: "lay the tool in hand aside", keys: ["escape"] },
  newCut: { scope: "bench", group: "Bench: cutting", words: "start another cut", keys: ["n"] },
  undo: { scope: "bench", group: "Bench: cutting", words: "undo", keys: ["mod+z"] },
  redo: { scope: "bench", group: "Bench: cutting", words: "redo", keys: ["mod+shift+z", "mod+y"], shown: "Ctrl + Shift + Z" },

  drawArrow: { scope: "bench", group: "Bench: pointing", words: "draw an arrow", keys: ["r"] },
  drawText: { scope: "bench", group: "Bench: pointing", words: "put a text; dragged, with a pointer", keys: ["t"] },
  putNumber: { scope: "bench", group: "Bench: pointing", words: "put the next number", keys: ["u"] },
  drawBox: { scope: "bench", group: "Bench: pointing", words: "draw a box", keys: ["b"] },
  drawEllipse: { scope: "bench", group: "Bench: pointing", words: "draw an ellipse", keys: ["e"] },
  drawLine: { scope: "bench", group: "Bench: pointing", words: "draw a line", keys: ["l"] },
  drawHighlighter: { scope: "bench", group: "Bench: pointing", words: "highlight", keys: ["h"] },
  drawPen: { scope: "bench", group: "Bench: pointing", words: "draw by hand", keys: ["i"] },
  putSticker: { scope: "bench", group: "Bench: pointing", words: "put a sticker", keys: ["k"] },
  dimRest: { scope: "bench", group: "Bench: pointing", words: "dim the rest", keys: ["m"] },
  allMarks: { scope: "bench", group: "Bench: pointing", words: "take all marks", keys: ["mod+a"] },
  copyMarks: { scope: "bench", group: "Bench: pointing", words: "copy the marks in hand", keys: ["mod+c"] },
  pasteMarks: { scope: "bench", group: "Bench: pointing", words: "paste marks", keys: ["mod+v"] },
  duplicate: { scope: "bench", group: "Bench: pointing", words: "duplicate the marks in hand", keys: ["mod+d"] },
  removeMark: { scope: "bench", group: "Bench: pointing", words: "remove what is in hand", keys: ["delete", "backspace"], shown: "Del" },

  reviewNext: { scope: "bench", group: "Bench: pointing", words: "in a review: the next part", keys: ["j"] },
  reviewRight: { scope: "bench", group: "Bench: pointing", words: "in a review: right so", keys: ["y"] },

  compare: { scope: "bench", group: "Bench: files", words: "compare the open row’s file with the original", keys: ["c"] },
  saveFile: { scope: "bench", group: "Bench: files", words: "save the open row’s file", keys: ["d"] },

  moveSplit: {
    scope: "compare",
    group: "Compare",
    words: "move the split (Shift: further)",
    keys: withShift(["left", "right"]),
    shown: "← →",
    fixed: true,
  },
  split: { scope: "compare", group: "Compare", words: "one over the other", keys: ["1"] },
  beside: { scope: "compare", group: "Compare", words: "side by side", keys: ["2"] },
  difference: { scope: "compare", group: "Compare", words: "only what differs", keys: ["3"] },
  nextPlace: { scope: "compare", group: "Compare", words: "next place where most was lost", keys: ["n"] },
  placeBefore: { scope: "compare", group: "Compare", words: "the place before", keys: ["b"] },
  original: { scope: "compare", group: "Compare", words: "see only the original, while it is held", keys: ["f"], shown: "Hold F", fixed: true },
  toBench: { scope: "compare", group: "Compare", words: "back to the Bench", keys: ["esc"] },
} as const satisfies Record<string, Action>;

export type ActionId = keyof typeof ACTIONS;

const NAMES: Record<string, string> = { mod: "Ctrl", esc: "Esc", escape: "Esc", enter: "Enter" };

const capitalised = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** Keys as a person reads them, like “Ctrl + Z”. */
export function shownKeys({ keys, shown }: Action): string {
  return shown ?? keys.map(keyWords).join(" / ");
}

/** One key as a person reads it. */
export function keyWords(key: string): string {
  return key.split("+").map((part) => NAMES[part] ?? capitalised(part)).join(" + ");
}

/** Every action with the keys that it has for somebody who has chosen some. */
export function withOwnKeys(own: OwnKeys): Record<ActionId, Action> {
  const rows = Object.entries(ACTIONS as Record<ActionId, Action>).map(([id, action]) => {
    const keys = own[id];
    if (!keys || action.fixed) return [id, action];
    const { scope, group, words } = action;
    return [id, { scope, group, words, keys }];
  });
  return Object.fromEntries(rows) as Record<ActionId, Action>;
}

/** The title of a button that does an action: what it does, and its key. */
export function titled(id: ActionId, words?: string): string {
  const action = withOwnKeys(useOwnKeys.getState().own)[id];
  const keys = shownKeys(action).replaceAll(" ", "");
  return (words ?? capitalised(action.words)) + (keys && ` (${keys})`);
}

interface Clash {
  key: string;
  first: string;
  second: string;
}

/** Pairs of actions that one key would do both, where both are heard. */
export function clashes(actions: Record<string, Action> = ACTIONS): Clash[] {
  const rows = Object.entries(actions).flatMap(([id, action]) => action.keys.map((key) => ({ id, key: plainKey(key), scope: action.scope })));
  const found: Clash[] = [];
  for (const [index, first] of rows.entries()) {
    for (const second of rows.slice(index + 1)) {
      const heard = first.scope === second.scope || AROUND[first.scope].includes(second.scope) || AROUND[second.scope].includes(first.scope);
      if (first.id !== second.id && first.key === second.key && heard) found.push({ key: first.key, first: first.id, second: second.id });
    }
  }
  return found;
}

const MODIFIERS = ["mod", "alt", "shift"];

/** A key in one spelling: modifiers in one order, one name for each. */
export function plainKey(key: string): string {
  const parts = key.toLowerCase().split("+").map((part) => (part === "esc" ? "escape" : part === "ctrl" || part === "meta" ? "mod" : part));
  return [...MODIFIERS.filter((name) => parts.includes(name)), ...parts.filter((part) => !MODIFIERS.includes(part))].join("+");
}

/** What was pressed, as actions name it; null while only a modifier is held. */
export function pressedKey({ code, ctrlKey, metaKey, altKey, shiftKey }: Pick<KeyboardEvent, "code" | "ctrlKey" | "metaKey" | "altKey" | "shiftKey">): string | null {
  if (/^(Control|Shift|Alt|Meta|OS)/.test(code) || !code) return null;
  const name = code.replace(/^(Key|Digit|Numpad|Arrow)/, "").toLowerCase();
  return [...(ctrlKey || metaKey ? ["mod"] : []), ...(altKey ? ["alt"] : []), ...(shiftKey ? ["shift"] : []), name].join("+");
}

const OF_THE_BROWSER = ["f5", "f11", "f12", "tab", ...["c", "v", "x", "w", "t", "n", "q", "r", "l", "p", "s", "f", "0", "equal", "minus"].map((key) => `mod+${key}`), "mod+shift+t", "mod+shift+n", "mod+shift+i", "alt+left", "alt+right", "alt+f4"];

/** Whether a key does something in every browser, which a page should not take away. */
export function isOfTheBrowser(key: string): boolean {
  return OF_THE_BROWSER.includes(key) || /^(mod\+)?tab$/.test(key);
}
