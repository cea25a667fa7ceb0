import { Link } from "react-router";

import { useLatest } from "../api/captures";
import { asProblem } from "../api/client";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { CaptureCard } from "../shelf/CaptureCard";
import { AddressField } from "./AddressField";
import { useBrowseForPicture } from "./PictureDrop";
import { ScreenChips } from "./ScreenChips";
import { HowToTake } from "./taking/HowToTake";

const LATEST = 10;

/** Where pages come in. The main path needs no setting: paste, Enter. */
export function GatherPage() {
  useTitle("");
  const shelf = useLatest(LATEST);
  const browse = useBrowseForPicture();
  const latest = shelf.data ?? [];
  return (
    <main className="mx-auto max-w-6xl px-6 pb-16">
      <section className="mx-auto max-w-3xl pt-12 pb-10">
        <h1 className="mb-4 text-2xl font-semibold">Which page do you need a picture of?</h1>
        <AddressField />
        <div className="mt-4 flex flex-wrap items-center justify-between gap-3">
          <ScreenChips />
          <p className="text-sm">
            Or drop or paste a picture, or{" "}
            <button type="button" className="link link-primary" onClick={browse}>
              browse for one
            </button>
            {" · "}
            <Link to="/sweeps/new" className="link link-primary">
              a list of many pages
            </Link>
            {" · "}
            <Link to="/grab" className="link link-primary">
              your own screen
            </Link>
            {" · "}
            <Link to="/live" className="link link-primary">
              a live page
            </Link>
            {" · "}
            <Link to="/clips" className="link link-primary">
              a clip
            </Link>
          </p>
        </div>
        <HowToTake />
      </section>
      <section aria-labelledby="latest">
        <div className="mb-4 flex items-baseline justify-between border-b border-base-300 pb-2">
          <h2 id="latest" className="font-semibold">
            Latest
          </h2>
          <Link to="/shelf" className="link text-sm">
            All on the shelf
          </Link>
        </div>
        {shelf.isError && <ProblemNote sentence={asProblem(shelf.error).sentence} hint={asProblem(shelf.error).hint} />}
        {shelf.isPending && <p>Looking at the shelf…</p>}
        {shelf.isSuccess && latest.length === 0 && (
          <p className="py-8 text-center">
            Nothing has been taken yet. Paste an address above: it arrives here.
          </p>
        )}
        <div className="grid grid-cols-2 gap-6 md:grid-cols-4 lg:grid-cols-5">
          {latest.map((capture) => (
            <CaptureCard key={capture.id} capture={capture} />
          ))}
        </div>
      </section>
    </main>
  );
}
