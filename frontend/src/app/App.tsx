import { lazy } from "react";
import { Route, Routes } from "react-router";

import { GatherPage } from "../gather/GatherPage";
import { NotHere } from "./NotHere";
import { Shell } from "./Shell";

// A screen's code is fetched when it is gone to: the first one ships without the others.
const BenchPage = lazy(() => import("../bench/BenchPage").then((module) => ({ default: module.BenchPage })));
const ComparePage = lazy(() => import("../compare/ComparePage").then((module) => ({ default: module.ComparePage })));
const DataFolderPage = lazy(() => import("../shelf/DataFolderPage").then((module) => ({ default: module.DataFolderPage })));
const DeletedPage = lazy(() => import("../shelf/DeletedPage").then((module) => ({ default: module.DeletedPage })));
const NewSweepPage = lazy(() => import("../sweeps/listing/NewSweepPage").then((module) => ({ default: module.NewSweepPage })));
const OutletsPage = lazy(() => import("../outlets/OutletsPage").then((module) => ({ default: module.OutletsPage })));
const ProofsPage = lazy(() => import("../sweeps/proofs/ProofsPage").then((module) => ({ default: module.ProofsPage })));
const ShelfPage = lazy(() => import("../shelf/ShelfPage").then((module) => ({ default: module.ShelfPage })));
const SignInsPage = lazy(() => import("../signins/SignInsPage").then((module) => ({ default: module.SignInsPage })));
const SweepsPage = lazy(() => import("../sweeps/SweepsPage").then((module) => ({ default: module.SweepsPage })));

/** Each screen has its own address. */
export function App() {
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route index element={<GatherPage />} />
        <Route path="shelf" element={<ShelfPage />} />
        <Route path="shelf/data" element={<DataFolderPage />} />
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
