import { useParams } from "react-router";

import { GrabPage } from "../grab/GrabPage";
import { JoinPage } from "./JoinPage";

/** One's own screen taken bit by bit, and the bits joined: one piece of code, for who does one does the other. */
export function PiecesScreen() {
  return useParams().joinId === undefined ? <GrabPage /> : <JoinPage />;
}
