import type { components } from "./generated";

/** Names for the generated schemas; nothing is declared here by hand. */
type Schemas = components["schemas"];

/** A value of which only some fields are always given; the others follow the usual look, or a style. */
type Given<T, Needed extends keyof T> = Pick<T, Needed> & Partial<T>;
type Ends = "kind" | "id" | "from_x_px" | "from_y_px" | "to_x_px" | "to_y_px";
type Boxed = "kind" | "id" | keyof Omit<Schemas["FrameSchema"], "folds" | "folds_down">;
type Spotted = "kind" | "id" | "x_px" | "y_px";

export type Area = Omit<Schemas["FrameSchema"], "folds" | "folds_down">;
export type Side = Schemas["TrimIn"]["sides"][number];
export type Block = Schemas["BlockOut"];
export type Capture = Schemas["CaptureOut"];
export type RightsIn = Schemas["RightsIn"];
export type RightsOut = Schemas["RightsOut"];
export type OutletFacts = Schemas["FactsSchema"];
export type DeletedCapture = Schemas["DeletedCaptureOut"];
export type CaptureDetail = Omit<Schemas["CaptureDetailOut"], "cuts"> & { cuts: Cut[] };
export type Choice = Schemas["ChoiceSchema"];
export type Cut = Omit<Schemas["CutOut"], "document"> & { document: CutDocument };
export type CutDocument = Omit<Schemas["CutDocument"], "marks" | "hidden" | "sought" | "dressing" | "tone" | "orientation" | "cleared" | "frame" | "seam" | "outline"> & {
  frame: Frame;
  seam?: Seam | null;
  outline?: FreeOutline | null;
  hidden: HiddenArea[];
  sought: SoughtWords[];
  marks: Mark[];
  orientation?: Orientation | null;
  cleared?: Clearing | null;
  tone?: Tone | null;
  dressing?: Dressing | null;
};
/** How a page lies; what is not given is as it was taken. */
export type Orientation = Partial<Schemas["Orientation"]>;
export type ClearedColour = Given<Schemas["ClearedColour"], "colour">;
export type PutBack = Given<Schemas["PutBack"], "x_px" | "y_px">;
export interface Clearing extends Partial<Omit<Schemas["Clearing"], "colours" | "put_back">> {
  colours?: ClearedColour[];
  put_back?: PutBack[];
}
/** How the colours of a page are changed; what is not given stays as it is. */
export type Tone = Partial<Schemas["Tone"]>;
/** A cut as the server's schema has it, which counts every field with a usual value as given. */
export type CutDocumentOnWire = Schemas["CutDocument"];
export type HiddenArea = Given<Schemas["HiddenArea"], "id" | "how" | keyof Area>;
export type SoughtWords = Given<Schemas["SoughtWords"], "id" | "kind">;
export type FoundPlace = Schemas["FoundPlaceOut"];
export type Arrow = Given<Schemas["Arrow"], Ends>;
export type Line = Given<Schemas["Line"], Ends>;
export type BoxMark = Given<Schemas["BoxMark"], Boxed>;
export type Ellipse = Given<Schemas["Ellipse"], Boxed>;
export type Dim = Given<Schemas["Dim"], Boxed>;
export type Sticker = Given<Schemas["Sticker"], Boxed>;
export type Pen = Given<Schemas["Pen"], "kind" | "id" | "points">;
export type Highlighter = Given<Schemas["Highlighter"], "kind" | "id" | "points">;
export type TextMark = Given<Schemas["Text"], Spotted | "text">;
export type Badge = Given<Schemas["Badge"], Spotted>;
export type Mark = Arrow | Line | BoxMark | Ellipse | Dim | Sticker | Pen | Highlighter | TextMark | Badge;
/** A look with a name, and the kinds of marks that begin with it. */
export interface MarkStyle {
  name: string;
  look: Record<string, unknown>;
  usual_for: MarkKind[];
}
export type MarkKind = Mark["kind"];
export type DrawnMark = Schemas["DrawnOut"];
export type DrawnPart = Schemas["PartOut"];
export type Extent = Schemas["ExtentOut"];
export type Caption = Given<Schemas["Caption"], "text">;
export type Stamp = Partial<Schemas["Stamp"]>;
export type Dressing = Partial<Omit<Schemas["Dressing"], "caption" | "border" | "shadow" | "torn" | "room" | "stamp">> & {
  caption?: Caption | null;
  border?: Partial<Schemas["Border"]> | null;
  shadow?: Partial<Schemas["Shadow"]> | null;
  torn?: Partial<Schemas["TornEdge"]> | null;
  room?: Partial<Schemas["AroundRoom"]> | null;
  stamp?: Stamp | null;
};
export type FileTold = Schemas["FileTold"];
export type Fold = Schemas["FoldSchema"];
/** A band down the page. */
export type FoldDown = Schemas["FoldDownSchema"];
export type Frame = Area & { folds: Fold[]; folds_down?: FoldDown[] };
export type Seam = Given<Schemas["Seam"], "look">;
/** What is kept of a page: all inside a shape. */
export type FreeOutline = Partial<Omit<Schemas["FreeOutline"], "points">> & { points: number[][] };
export type Job = Schemas["JobOut"];
export type Outlet = Schemas["OutletOut"];
export type OutletsFile = Schemas["OutletsFile"];
export type Output = Schemas["OutputOut"];
export type Lacking = Schemas["LackingOut"];
export type Leaf = Schemas["LeafOut"];
export type Candidate = Schemas["CandidateOut"];
export type NamedScreenIn = Schemas["NamedScreenIn"];
export type SignIn = Schemas["SignInOut"];
export type ReviewRow = Schemas["ReviewRowOut"];
export type Rules = Schemas["RulesSchema"];
export type Slot = Schemas["SlotOut"];
export type SlotIn = Schemas["SlotIn"];
export type Step = Schemas["StepSchema"];
export type Tradeoff = Schemas["TradeoffOut"];
export type TakeSettings = Schemas["TakeSettings"];
/** What is said of how a page is taken; the rest is as the person has set it. */
export type TakeIn = Schemas["TakeIn"];
export type TakeChanges = Partial<TakeSettings>;
export type Strip = Schemas["StripOut"];
export type FormatName = Choice["format"];
export type PageListing = Schemas["ListOut"];
export type ListedPage = Schemas["ListedPageOut"];
export type Sweep = Schemas["SweepOut"];
export type SweepRow = Schemas["RowOut"];
export type SweepRows = Schemas["RowsOut"];
export type Shot = Schemas["ShotOut"];
export type Change = Schemas["ChangeOut"];
export type SweepOrder = Schemas["SweepIn"];
export type SweepIn = Omit<Schemas["SweepIn"], "settings"> & { settings: TakeChanges };
export type HandOver = Schemas["HandOverOut"];
/** What is handed over; of captures and sweeps the files that were made, or with `pictures` what their cuts show. */
export type What = Partial<Schemas["WhatIn"]>;
export type UploadPlace = Schemas["UploadPlaceOut"];
export type UploadPlaceIn = Schemas["UploadPlaceIn"];
export type Folder = Schemas["ShelfFolderOut"];
export type Label = Schemas["LabelOut"];
/** Which captures are looked for; folder 0 is none. */
export type Wanted = Partial<Schemas["WantedIn"]>;
export type ShelfOrder = Schemas["KeptSearchOut"]["order"];
export type KeptSearch = Schemas["KeptSearchOut"];
export type DataFolder = Schemas["DataFolderOut"];
export type Held = Schemas["HeldOut"];
export type BroughtArchive = Schemas["BroughtArchiveOut"];
export type Retaken = Schemas["RetakenOut"];
export type Batch = Given<Schemas["BatchIn"], "action">;
export type Routine = Schemas["RoutineOut"];
export type Question = Schemas["QuestionOut"];
/** One step of a routine: what it does, and its own fields, as docs/routine-file.md has them. */
export interface RoutineStep {
  kind: string;
  off?: boolean;
  ask?: { name: string; field: string; words: string }[];
  if_missing?: "skip" | "whole" | "stop";
  [field: string]: unknown;
}
export interface RoutineDocument {
  version: 1;
  name: string;
  note?: string;
  steps: RoutineStep[];
  [part: string]: unknown;
}
export type RoutineDetail = Omit<Schemas["RoutineDetailOut"], "document"> & { document: RoutineDocument };
export type StepLook = Schemas["StepLookOut"];
export type RunIn = Partial<Schemas["RunIn"]>;
export type Run = Schemas["RunOut"];
export type RunItem = Schemas["RunItemOut"];
export type MadeFile = Schemas["MadeFileOut"];
export type Settings = Schemas["SettingsOut"];
export type Setting = Omit<Schemas["SettingOut"], "value" | "usual"> & { value: unknown; usual: unknown };
export type Account = Schemas["AccountOut"];
export type Webhook = Schemas["WebhookOut"];
export type WebhookEvent = Webhook["events"][number];
export type Message = Schemas["DeliveryOut"];
export type Join = Schemas["JoinOut"];
export type JoinPiece = Schemas["PieceOut"];
export type JoinSeam = Schemas["SeamOut"];
export type Clip = Schemas["ClipOut"];
export type ClipRow = Schemas["ClipRow"];
export type ClipIn = Schemas["ClipIn"];
export type ClipDocument = Required<Schemas["ClipDocumentSchema"]>;
export type ClipOutput = Schemas["ClipOutputOut"];
export type ClipOutputIn = Schemas["ClipOutputIn"];
