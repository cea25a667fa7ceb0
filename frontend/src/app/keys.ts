/** Every key of the interface, in the groups in which `?` shows them. */
export interface KeyGroup {
  name: string;
  keys: { keys: string; does: string }[];
}

export const KEY_GROUPS: KeyGroup[] = [
  {
    name: "Everywhere",
    keys: [
      { keys: "A", does: "go to the address field" },
      { keys: "G", does: "Gather" },
      { keys: "S", does: "Shelf" },
      { keys: "W", does: "Sweeps" },
      { keys: "O", does: "Outlets" },
      { keys: "/", does: "search, on the shelf" },
      { keys: "?", does: "show or hide these keys" },
    ],
  },
  {
    name: "Sweep: skimming",
    keys: [
      { keys: "← → ↑ ↓", does: "next picture" },
      { keys: "Enter / Esc", does: "large view, and back" },
      { keys: "K / R / D / U", does: "keep, retake, drop, or none of them" },
      { keys: "B", does: "in the large view: as it was the last time" },
      { keys: "C", does: "in the large view: the next place that changed" },
    ],
  },
  {
    name: "Bench: looking",
    keys: [
      { keys: "1", does: "actual pixels" },
      { keys: "2", does: "two to one" },
      { keys: "0", does: "fit the width" },
      { keys: "Page Up / Down, Home, End", does: "move along the page" },
    ],
  },
  {
    name: "Bench: cutting",
    keys: [
      { keys: "Arrows", does: "move the frame by 1 px (Shift: 10 px)" },
      { keys: "Alt + arrows", does: "move its right or lower edge (Shift: 10 px)" },
      { keys: "Click", does: "frame the block under the pointer" },
      { keys: "W", does: "frame the whole page" },
      { keys: "F", does: "fold a band of the page away" },
      { keys: "N", does: "start another cut" },
      { keys: "Ctrl + Z", does: "undo" },
      { keys: "Ctrl + Shift + Z", does: "redo" },
    ],
  },
  {
    name: "Bench: files",
    keys: [
      { keys: "C", does: "compare the open row's file with the original" },
      { keys: "D", does: "save the open row's file" },
    ],
  },
  {
    name: "Compare",
    keys: [
      { keys: "← →", does: "move the split (Shift: further)" },
      { keys: "1 2 3", does: "split, side by side, difference" },
      { keys: "N B", does: "next place where most was lost, and back" },
      { keys: "Hold F", does: "see only the original" },
      { keys: "Esc", does: "back to the Bench" },
    ],
  },
];
