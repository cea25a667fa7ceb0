import { useEffect, useRef, useState } from "react";

import { useTitle } from "../parts/useTitle";
import { GrabTools } from "./GrabTools";
import { endSharing, type Shared, startSharing, useSharing } from "./sharing";
import { useGrabs } from "./useGrabs";
import { GrabbedList } from "./GrabbedList";

/** Pictures of whatever is on one's own screen: by hand, in a series, or while it is scrolled. */
export function GrabPage() {
  const sharing = useSharing();
  useTitle(sharing.state === "on" ? "● Sharing" : "Your own screen");
  const grabs = useGrabs();
  const [isScrolled, setScrolled] = useState(false);
  // Who leaves the screen shares nothing any more.
  useEffect(() => endSharing, []);
  return (
    <main className="mx-auto max-w-5xl px-4 pt-6 pb-16 sm:px-6">
      <h1 className="text-xl font-semibold">Pictures of your own screen</h1>
      {sharing.state === "on" ? (
        <>
          <div className="mt-3 flex flex-wrap items-center gap-3 border-2 border-error px-3 py-2" role="status" data-sharing={sharing.shared.surface}>
            <span className="size-3 rounded-full bg-error" aria-hidden />
            <strong>A {sharing.shared.surface} is shared</strong>
            <span className="figure">
              {sharing.shared.video.videoWidth.toLocaleString("en-GB")} × {sharing.shared.video.videoHeight.toLocaleString("en-GB")} px
            </span>
            <button type="button" className="btn btn-error btn-sm ml-auto" onClick={endSharing}>
              End sharing
            </button>
          </div>
          <div className="mt-4 grid gap-6 md:grid-cols-[20rem_minmax(0,1fr)]">
            <Seen shared={sharing.shared} />
            <GrabTools shared={sharing.shared} grabs={grabs} onScrolling={setScrolled} />
          </div>
        </>
      ) : (
        <div className="mt-3 max-w-2xl">
          {sharing.state === "ended" && <p className="mb-3 border-l-4 border-warning bg-base-200 px-3 py-2" role="status">{sharing.why}</p>}
          <p className="mb-4">
            For what no address leads to: a window of another programme, a page that only this browser may see. Your browser asks which tab, window or screen; only the pictures you grab are kept, on the shelf.
          </p>
          <button type="button" className="btn btn-primary" disabled={sharing.state === "asking"} onClick={() => void startSharing()}>
            {sharing.state === "asking" ? "Choose in your browser’s dialog…" : "Share a tab, window or screen"}
          </button>
        </div>
      )}
      <GrabbedList ids={grabs.ids} isScrolled={isScrolled} />
    </main>
  );
}

/** What is shared, as it is seen now. */
function Seen({ shared }: { shared: Shared }) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const { video } = shared;
    place.current?.append(video);
    return () => video.remove();
  }, [shared]);
  return <div ref={place} className="self-start border border-base-300 bg-base-200" aria-label="What is shared" role="img" />;
}
