import { Route, Routes } from "react-router";

import { GatherPage } from "../gather/GatherPage";
import { NotHere } from "./NotHere";
import { SCREENS } from "./screens";
import { Shell } from "./Shell";

/** Each screen has its own address. */
export function App() {
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route index element={<GatherPage />} />
        {SCREENS.flatMap(({ paths, Shown }) => paths.map((path) => <Route key={path} path={path} element={<Shown />} />))}
        <Route path="*" element={<NotHere />} />
      </Route>
    </Routes>
  );
}
