import { useMatch, useParams } from "react-router";

import { GrabPage } from "../grab/GrabPage";
import { LivePage } from "../live/LivePage";
import { JoinPage } from "./JoinPage";

/** What is taken by hand: one's own screen bit by bit, the bits joined, and a live page. One piece of code. */
export function PiecesScreen() {
  const isLive = useMatch("/live") !== null;
  const { joinId } = useParams();
  if (isLive) return <LivePage />;
  return joinId === undefined ? <GrabPage /> : <JoinPage />;
}
