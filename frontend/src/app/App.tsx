import { Route, Routes } from "react-router";

import { BenchPage } from "../bench/BenchPage";
import { ComparePage } from "../compare/ComparePage";
import { GatherPage } from "../gather/GatherPage";
import { OutletsPage } from "../outlets/OutletsPage";
import { DeletedPage } from "../shelf/DeletedPage";
import { ShelfPage } from "../shelf/ShelfPage";
import { SignInsPage } from "../signins/SignInsPage";
import { NewSweepPage } from "../sweeps/NewSweepPage";
import { ProofsPage } from "../sweeps/ProofsPage";
import { SweepsPage } from "../sweeps/SweepsPage";
import { NotHere } from "./NotHere";
import { Shell } from "./Shell";

/** Each screen has its own address. */
export function App() {
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route index element={<GatherPage />} />
        <Route path="shelf" element={<ShelfPage />} />
        <Route path="shelf/deleted" element={<DeletedPage />} />
        <Route path="captures/:captureId" element={<BenchPage />} />
        <Route path="captures/:captureId/cuts/:cutId" element={<BenchPage />} />
        <Route path="captures/:captureId/cuts/:cutId/compare/:outputId" element={<ComparePage />} />
        <Route path="sweeps" element={<SweepsPage />} />
        <Route path="sweeps/new" element={<NewSweepPage />} />
        <Route path="sweeps/:sweepId" element={<ProofsPage />} />
        <Route path="outlets" element={<OutletsPage />} />
        <Route path="sign-ins" element={<SignInsPage />} />
        <Route path="*" element={<NotHere />} />
      </Route>
    </Routes>
  );
}
