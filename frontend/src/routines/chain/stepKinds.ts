import type { RoutineStep } from "../../api/types";

/** What a field of a step holds; each has its own way of being typed. */
export type FieldKind = "px" | "number" | "bytes" | "text" | "lines" | "colour" | "check" | "block" | "choice" | "formats" | "sides";

export interface Field {
  /** The place in the step, like `dressing.caption.text`. */
  path: string;
  words: string;
  kind: FieldKind;
  choices?: Record<string, string>;
  /** What stands there while nothing is given. */
  usual?: unknown;
  placeholder?: string;
  /** Whether the field is shown for what the step says. */
  when?: (step: RoutineStep) => boolean;
  /** Whether it may be empty. */
  optional?: boolean;
}

export interface StepKind {
  kind: string;
  /** Which stage of the work it belongs to: steps of one stage may change places. */
  stage: number;
  group: string;
  words: string;
  /** A new one; none for steps that only come from a cut. */
  fresh?: RoutineStep;
  fields: readonly Field[];
  /** What it does, in a few words. */
  told: (step: RoutineStep) => string;
  /** Whether it may find nothing. */
  ruled?: boolean;
}

const HOW = { solid: "a colour over it", pixelate: "coarse squares", blur: "blur", patch: "what is around it" };
const CORNERS = {
  "top-left": "upper left",
  top: "upper edge",
  "top-right": "upper right",
  left: "left edge",
  centre: "the middle",
  right: "right edge",
  "bottom-left": "lower left",
  bottom: "lower edge",
  "bottom-right": "lower right",
};
const STAMP_PLACES = { ...CORNERS, middle: "the middle", tiled: "all over" } as Record<string, string>;
delete STAMP_PLACES.centre;
const WAYS = { width: "width", height: "height", fill: "width and height, filled", pad: "width and height, padded", share: "share of its own size" };

const words = (value: unknown, usual = "") => (typeof value === "string" || typeof value === "number" ? String(value) : usual);

/** A rule for a block, as a person says it. */
export function blockWords(rule: unknown): string {
  const { role, says, below, selector, number } = (rule ?? {}) as Record<string, unknown>;
  const parts = [words(role), says ? `“${words(says)}”` : "", selector ? words(selector) : "", below ? `below “${words(below)}”` : ""].filter(Boolean);
  const which = typeof number === "number" && number !== 1 ? `, ${number === -1 ? "the last" : `number ${number}`}` : "";
  return (parts.join(" ") || "a block") + which;
}

const partsOf = (value: unknown) => Object.keys((value ?? {}));
const DRESSED: Record<string, string> = {
  caption: "caption",
  border: "border",
  corner_px: "round corners",
  shadow: "shadow",
  torn: "torn edge",
  room: "room around",
  background: "background",
  stamp: "stamp",
};
const has = (part: string) => (step: RoutineStep) => partsOf(step.dressing).includes(part);
const dressed = (title: string, part: string, value: unknown, ...fields: Field[]): StepKind => ({
  kind: "dress",
  stage: 8,
  group: "Dress",
  words: title,
  fresh: { kind: "dress", dressing: { [part]: value } },
  fields,
  told: () => "",
});
const field = (path: string, label: string, kind: FieldKind, more: Partial<Field> = {}): Field => ({ path, words: label, kind, ...more });

const HIDING: Field[] = [field("how", "Under", "choice", { choices: HOW, usual: "solid" }), field("colour", "Colour", "colour", { usual: "#1D2B2A", when: (step) => (step.how ?? "solid") === "solid" })];
const BLOCK = field("block", "Which block", "block");

/** How a stage is called where its steps are added. */
export const GROUPS = ["Take", "Turn", "Hide", "Show", "Colour", "Point", "Dress", "Files", "Hand over"] as const;

/** Every kind of step that can be added, in the order of work. A dress step is known by its part. */
export const STEP_KINDS: readonly StepKind[] = [
  {
    kind: "take",
    stage: 0,
    group: "Take",
    words: "Take a page",
    fresh: { kind: "take", screen: "1280x800" },
    fields: [
      field("screen", "Screen", "text", { placeholder: "1280x800, or 390x844@3", usual: "1280x800" }),
      field("touch", "With a finger, as a phone", "check"),
      field("extent", "What is taken", "choice", { choices: { full: "the whole page", view: "the first screen", element: "one element", panel: "one panel" }, usual: "full" }),
      field("element", "Which", "text", { placeholder: "#main, or words in quotation marks", when: (step) => step.extent === "element" || step.extent === "panel" }),
      field("max_screens", "At most so many screens", "number", { optional: true }),
      field("scheme", "Colours of the page", "choice", { choices: { light: "light", dark: "dark" }, usual: "light" }),
      field("steps", "First, on the page", "lines", { placeholder: 'click "Accept all"' }),
      field("leave_out", "Leave out", "lines", { placeholder: ".banner" }),
      field("wait_ms", "Wait before, ms", "number", { usual: 0 }),
    ],
    told: (step) => words(step.screen, "1280x800").replace("x", " × "),
  },
  {
    kind: "turn",
    stage: 1,
    group: "Turn",
    words: "Turn",
    fresh: { kind: "turn", orientation: { turn_deg: 90 } },
    fields: [
      field("orientation.turn_deg", "Clockwise", "choice", { choices: { "0": "not", "90": "a quarter", "180": "upside down", "270": "three quarters" }, usual: 0 }),
      field("orientation.mirror", "Exchange left and right first", "check"),
      field("straighten", "Find the angle that makes lines level", "check"),
    ],
    told: (step) => (step.straighten ? "level" : `${words((step.orientation as Record<string, unknown> | undefined)?.turn_deg, "0")}°`),
  },
  {
    kind: "hide_words",
    stage: 2,
    group: "Hide",
    words: "Hide by words",
    fresh: { kind: "hide_words", sought: "email" },
    fields: [
      field("sought", "What", "choice", { choices: { email: "addresses of mail", telephone: "telephone numbers", amount: "amounts of money", words: "words" } }),
      field("words", "The words, one a line", "text", { when: (step) => step.sought === "words" }),
      ...HIDING,
    ],
    told: (step) => (step.sought === "words" ? `“${words(step.words)}”` : { email: "addresses of mail", telephone: "telephone numbers", amount: "amounts" }[words(step.sought)] ?? ""),
    ruled: true,
  },
  { kind: "hide_blocks", stage: 2, group: "Hide", words: "Hide blocks", fresh: { kind: "hide_blocks", block: { role: "image" } }, fields: [BLOCK, ...HIDING], told: (step) => `every ${blockWords(step.block)}`, ruled: true },
  { kind: "hide_areas", stage: 2, group: "Hide", words: "Hide areas", fields: [], told: (step) => count(step.areas, "area"), ruled: true },
  { kind: "clear", stage: 3, group: "Hide", words: "Clear colours", fields: [], told: () => "made transparent" },
  {
    kind: "frame_block",
    stage: 4,
    group: "Show",
    words: "Show a block",
    fresh: { kind: "frame_block", block: { role: "table" } },
    fields: [BLOCK, field("room_px", "Room around, px", "px", { usual: 0 }), field("as_wide", "As wide as", "choice", { choices: { block: "the block", page: "the page" }, usual: "block" })],
    told: (step) => blockWords(step.block),
    ruled: true,
  },
  {
    kind: "frame_stretch",
    stage: 4,
    group: "Show",
    words: "Show a stretch",
    fresh: { kind: "frame_stretch", from_block: { role: "heading" } },
    fields: [
      field("from_block", "From", "block", { optional: true }),
      field("to_block", "To", "block", { optional: true }),
      field("with_last", "The last one is shown", "check", { usual: true }),
      field("room_px", "Room above and below, px", "px", { usual: 0 }),
    ],
    told: (step) => `${step.from_block ? `from ${blockWords(step.from_block)}` : "from the top"} ${step.to_block ? `to ${blockWords(step.to_block)}` : "to the end"}`,
    ruled: true,
  },
  {
    kind: "frame_corner",
    stage: 4,
    group: "Show",
    words: "Show a fixed size",
    fresh: { kind: "frame_corner", width_px: 1_280, height_px: 800 },
    fields: [
      field("width_px", "Width, px", "px"),
      field("height_px", "Height, px", "px"),
      field("corner", "Counted from", "choice", { choices: CORNERS, usual: "top-left" }),
      field("x_px", "Inwards, px", "px", { usual: 0 }),
      field("y_px", "Down or up, px", "px", { usual: 0 }),
      field("smaller", "A smaller picture is shown as far as it goes", "check", { usual: true }),
    ],
    told: (step) => `${words(step.width_px)} × ${words(step.height_px)}`,
    ruled: true,
  },
  { kind: "frame_screens", stage: 4, group: "Show", words: "Show the first screens", fresh: { kind: "frame_screens", screens: 1 }, fields: [field("screens", "How many", "number")], told: (step) => words(step.screens, "1"), ruled: true },
  { kind: "trim", stage: 4, group: "Show", words: "Trim plain edges", fresh: { kind: "trim" }, fields: [field("sides", "Sides", "sides")], told: (step) => (Array.isArray(step.sides) ? step.sides.join(", ") : "all sides") },
  { kind: "fold_blocks", stage: 4, group: "Show", words: "Fold blocks away", fresh: { kind: "fold_blocks", block: { role: "navigation" } }, fields: [BLOCK, field("room_px", "With so many px around", "px", { usual: 0 })], told: (step) => `every ${blockWords(step.block)}`, ruled: true },
  { kind: "fold_bands", stage: 4, group: "Show", words: "Fold bands away", fields: [], told: (step) => count([...list(step.folds), ...list(step.folds_down)], "band"), ruled: true },
  { kind: "seam", stage: 4, group: "Show", words: "Folds are seen", fresh: { kind: "seam", seam: { look: "hairline" } }, fields: [field("seam.look", "As", "choice", { choices: { hairline: "a thin line", torn: "torn edges" } })], told: (step) => (((step.seam as Record<string, unknown> | undefined)?.look ?? "") === "torn" ? "torn" : "a thin line") },
  { kind: "outline", stage: 5, group: "Show", words: "Keep a shape", fields: [], told: () => "as drawn", ruled: true },
  {
    kind: "tone",
    stage: 6,
    group: "Colour",
    words: "Tone",
    fresh: { kind: "tone", tone: { grey: true } },
    fields: [
      field("tone.grey", "Without colours", "check"),
      field("tone.invert", "Each colour its opposite", "check"),
      field("tone.brightness", "Brightness, times", "number", { usual: 1 }),
      field("tone.contrast", "Contrast, times", "number", { usual: 1 }),
    ],
    told: (step) => partsOf(step.tone).join(", ").replace("grey", "no colours"),
  },
  { kind: "marks", stage: 7, group: "Point", words: "Marks", fields: [], told: (step) => `${count(step.marks, "mark")}${blockOf(step.at) ? ` at ${blockWords(blockOf(step.at))}` : ""}`, ruled: true },
  dressed("Border", "border", { width_px: 1, colour: "#B8B2A4" }, field("dressing.border.width_px", "Width, px", "px"), field("dressing.border.colour", "Colour", "colour")),
  dressed("Caption", "caption", { text: "{title}, {date}" }, field("dressing.caption.text", "Text", "text", { placeholder: "{title} {address} {host} {date} {name}" }), field("dressing.caption.side", "Where", "choice", { choices: { below: "below", above: "above" }, usual: "below" }), field("dressing.caption.size_px", "Size, px", "number", { usual: 14 })),
  dressed("Stamp", "stamp", { text: "Skerrin Sound Ferries", place: "bottom-right" }, field("dressing.stamp.text", "Text", "text", { when: (step) => !("picture" in ((step.dressing as { stamp?: object } | undefined)?.stamp ?? {})) }), field("dressing.stamp.place", "Where", "choice", { choices: STAMP_PLACES, usual: "bottom-right" }), field("dressing.stamp.size_px", "Size, px", "number", { usual: 16 }), field("dressing.stamp.opacity", "How strong, 0 to 1", "number", { usual: 0.5 })),
  dressed("Room around", "room", { top_px: 12, right_px: 12, bottom_px: 12, left_px: 12 }, ...(["top", "right", "bottom", "left"] as const).map((side) => field(`dressing.room.${side}_px`, `${side.charAt(0).toUpperCase()}${side.slice(1)}, px`, "px", { usual: 0 }))),
  dressed("Background", "background", "#FFFFFF", field("dressing.background", "Colour", "colour")),
  dressed("Shadow", "shadow", { blur_px: 12 }, field("dressing.shadow.blur_px", "How far, px", "px"), field("dressing.shadow.down_px", "Down, px", "px", { usual: 4 })),
  dressed("Torn edge", "torn", { sides: ["bottom"] }, field("dressing.torn.sides", "Sides", "sides"), field("dressing.torn.depth_px", "Depth, px", "px", { usual: 10 })),
  dressed("Round corners", "corner_px", 8, field("dressing.corner_px", "Radius, px", "px")),
  {
    kind: "slot",
    stage: 9,
    group: "Files",
    words: "Make a file",
    fresh: { kind: "slot", width_px: 720, limit_bytes: 90_000, formats: ["jpeg", "png", "webp"] },
    fields: [
      field("name", "Name", "text", { placeholder: "its size", usual: "" }),
      field("way", "Size by", "choice", { choices: WAYS, usual: "width" }),
      field("width_px", "Width, px", "px", { when: (step) => !["height", "share"].includes(words(step.way, "width")) }),
      field("height_px", "Height, px", "px", { when: (step) => ["height", "fill", "pad"].includes(words(step.way)) }),
      field("percent", "Percent", "number", { when: (step) => step.way === "share", usual: 100 }),
      field("limit_bytes", "At most", "bytes", { optional: true, placeholder: "90 kB" }),
      field("fidelity", "Or as light as it looks so good", "number", { optional: true, placeholder: "85" }),
      field("formats", "Formats", "formats"),
      field("greatest_height_px", "Divided when higher than, px", "px", { optional: true }),
    ],
    told: (step) => `${sizeWords(step)}${typeof step.limit_bytes === "number" ? `, at most ${kb(step.limit_bytes)}` : ""}`,
  },
  {
    kind: "out",
    stage: 10,
    group: "Hand over",
    words: "Hand over",
    fresh: { kind: "out", way: "folder", folder: "From a routine" },
    fields: [
      field("way", "Files", "choice", { choices: { files: "stay with their captures", folder: "go into a folder of the server", pdf: "become a PDF of each picture", upload: "go to an outlet’s site" }, usual: "files" }),
      field("folder", "Folder", "text", { when: (step) => step.way === "folder" }),
      field("outlet", "Outlet", "text", { when: (step) => step.way === "upload" }),
      field("paper", "Paper", "text", { when: (step) => step.way === "pdf", usual: "tall", placeholder: "tall, A4, letter" }),
      field("names", "Names", "text", { placeholder: "{title}-{width}", usual: "" }),
    ],
    told: (step) => ({ folder: `folder “${words(step.folder)}”`, pdf: "a PDF each", upload: words(step.outlet) })[words(step.way)] ?? "with their captures",
  },
];

function list(value: unknown): unknown[] {
  return Array.isArray(value) ? value : [];
}

function count(value: unknown, one: string): string {
  const many = list(value).length;
  return `${many} ${one}${many === 1 ? "" : "s"}`;
}

function blockOf(at: unknown): unknown {
  return (at as { block?: unknown } | undefined)?.block;
}

function kb(bytes: number): string {
  return `${Number((bytes / 1_000).toFixed(1))} kB`;
}

function sizeWords(step: RoutineStep): string {
  switch (words(step.way, "width")) {
    case "height":
      return `${words(step.height_px)} px high`;
    case "share":
      return `${words(step.percent, "100")} %`;
    case "fill":
    case "pad":
      return `${words(step.width_px)} × ${words(step.height_px)}`;
    default:
      return `${words(step.width_px)} px wide`;
  }
}

/** The kind of a step; of a dress step by the part that it is about. */
export function kindOf(step: RoutineStep): StepKind {
  const found = STEP_KINDS.find((row) => row.kind === step.kind && (step.kind !== "dress" || partsOf(row.fresh?.dressing).every((part) => has(part)(step))));
  return found ?? { kind: step.kind, stage: 8, group: "Dress", words: "Dress", fields: [], told: () => "" };
}

/** What a step does, in a few words. */
export function stepWords(step: RoutineStep): string {
  const told = kindOf(step).told(step);
  if (told || step.kind !== "dress") return told;
  const dressing = (step.dressing ?? {}) as Record<string, Record<string, unknown>>;
  const text = dressing.caption?.text ?? dressing.stamp?.text;
  return typeof text === "string" ? `“${text}”` : Object.keys(dressing).map((part) => DRESSED[part] ?? part).join(", ");
}
