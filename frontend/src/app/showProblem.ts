import { asProblem } from "../api/client";
import { useNotices } from "./notices";

/** Say at the lower edge what went wrong, and what can be done. */
export function showProblem(error: unknown): void {
  const { sentence, hint } = asProblem(error);
  useNotices.getState().show({ tone: "error", text: sentence, hint });
}
