import { type ComponentType, lazy, useState } from "react";
import { matchPath } from "react-router";

interface Screen {
  /** Where it is; one that is at several stays as it is from one to the other. */
  paths: readonly string[];
  Shown: ComponentType;
  /** Has its code here, so that it is shown with the first look and not after a word that it is fetched. */
  fetch: () => Promise<void>;
}

function screen(paths: readonly string[], load: () => Promise<ComponentType>): Screen {
  const here: { Shown?: ComponentType } = {};
  const fetch = async () => {
    here.Shown ??= await load();
  };
  const Later = lazy(async () => {
    await fetch();
    return { default: here.Shown as ComponentType };
  });
  // Once it is shown it stays the same one.
  function Shown() {
    const [Chosen] = useState(() => here.Shown ?? Later);
    return <Chosen />;
  }
  return { paths, Shown, fetch };
}

/** The screens besides Gather. Their code is fetched when they are gone to: the first one ships without the others. */
export const SCREENS: readonly Screen[] = [
  screen(["/shelf"], () => import("../shelf/ShelfPage").then((module) => module.ShelfPage)),
  screen(["/shelf/data", "/shelf/deleted"], () => import("../shelf/behind/BehindShelf").then((module) => module.BehindShelf)),
  screen(["/captures/:captureId", "/captures/:captureId/cuts/:cutId"], () => import("../bench/BenchPage").then((module) => module.BenchPage)),
  screen(["/captures/:captureId/cuts/:cutId/compare/:outputId"], () => import("../compare/ComparePage").then((module) => module.ComparePage)),
  screen(["/sweeps"], () => import("../sweeps/SweepsPage").then((module) => module.SweepsPage)),
  screen(["/sweeps/new"], () => import("../sweeps/listing/NewSweepPage").then((module) => module.NewSweepPage)),
  screen(["/sweeps/:sweepId"], () => import("../sweeps/proofs/ProofsPage").then((module) => module.ProofsPage)),
  screen(["/routines"], () => import("../routines/RoutinesPage").then((module) => module.RoutinesPage)),
  screen(["/routines/:routineId"], () => import("../routines/RoutinePage").then((module) => module.RoutinePage)),
  screen(["/runs/:runId"], () => import("../routines/runs/RunPage").then((module) => module.RunPage)),
  screen(["/grab", "/live", "/joins/:joinId"], () => import("../joins/PiecesScreen").then((module) => module.PiecesScreen)),
  screen(["/clips", "/clips/:clipId"], () => import("../clips/ClipsScreen").then((module) => module.ClipsScreen)),
  screen(["/outlets"], () => import("../outlets/OutletsPage").then((module) => module.OutletsPage)),
  screen(["/keys"], () => import("../keys/KeysPage").then((module) => module.KeysPage)),
  screen(["/settings"], () => import("../settings/SettingsPage").then((module) => module.SettingsPage)),
  screen(["/sign-ins"], () => import("../signins/SignInsPage").then((module) => module.SignInsPage)),
];

/** Has the code of the screen at an address here. Whether it came or not is told where it is shown. */
export async function fetchScreen(pathname: string): Promise<void> {
  await SCREENS.find(({ paths }) => paths.some((path) => matchPath(path, pathname)))?.fetch().catch(() => undefined);
}
