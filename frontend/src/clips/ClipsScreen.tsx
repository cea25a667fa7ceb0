import { useParams } from "react-router";

import { ClipPage } from "./ClipPage";
import { ClipsPage } from "./ClipsPage";

/** All clips, or one of them. */
export function ClipsScreen() {
  return useParams().clipId === undefined ? <ClipsPage /> : <ClipPage />;
}
