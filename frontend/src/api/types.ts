import type { components } from "./generated";

/** Names for the generated schemas; nothing is declared here by hand. */
type Schemas = components["schemas"];

export type Area = Omit<Schemas["FrameSchema"], "folds">;
export type Block = Schemas["BlockOut"];
export type Capture = Schemas["CaptureOut"];
export type DeletedCapture = Schemas["DeletedCaptureOut"];
export type CaptureDetail = Schemas["CaptureDetailOut"];
export type Choice = Schemas["ChoiceSchema"];
export type Cut = Schemas["CutOut"];
export type Fold = Schemas["FoldSchema"];
export type Frame = Schemas["FrameSchema"];
export type Job = Schemas["JobOut"];
export type Outlet = Schemas["OutletOut"];
export type OutletsFile = Schemas["OutletsFile"];
export type Output = Schemas["OutputOut"];
export type Lacking = Schemas["LackingOut"];
export type Leaf = Schemas["LeafOut"];
export type Candidate = Schemas["CandidateOut"];
export type NamedScreenIn = Schemas["NamedScreenIn"];
export type SignIn = Schemas["SignInOut"];
export type Rules = Schemas["RulesSchema"];
export type Slot = Schemas["SlotOut"];
export type SlotIn = Schemas["SlotIn"];
export type Step = Schemas["StepSchema"];
export type Tradeoff = Schemas["TradeoffOut"];
export type TakeSettings = Schemas["TakeSettings"];
export type Strip = Schemas["StripOut"];
export type FormatName = Choice["format"];
export type PageListing = Schemas["ListOut"];
export type ListedPage = Schemas["ListedPageOut"];
export type Sweep = Schemas["SweepOut"];
export type SweepRow = Schemas["RowOut"];
export type SweepRows = Schemas["RowsOut"];
export type Shot = Schemas["ShotOut"];
export type Change = Schemas["ChangeOut"];
export type SweepIn = Schemas["SweepIn"];
