import { useLocation } from "react-router";

import { DataFolderPage } from "./DataFolderPage";
import { DeletedPage } from "./DeletedPage";

/** The two screens behind the shelf, which are rarely gone to: one piece of code, fetched together. */
export function BehindShelf() {
  return useLocation().pathname === "/shelf/data" ? <DataFolderPage /> : <DeletedPage />;
}
