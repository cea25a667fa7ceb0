import { useCallback, useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";

import { useScreens } from "../api/screens";
import { useChosenScreens } from "../gather/screenChoice";
import { formatSize } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { connection, useLive } from "./connection";
import { LiveBar, sizeOf } from "./LiveBar";
import { LiveDialog } from "./LiveDialog";
import { LiveSteps } from "./LiveSteps";
import { LiveTake } from "./LiveTake";
import { LiveTyping } from "./LiveTyping";
import { type Choosing, LiveView } from "./LiveView";
import type { Area } from "./messages";

/** A page in the server's browser that a person uses until it looks right, and takes as it then stands. */
export function LivePage() {
  useTitle("A live page");
  const { link, screen, refusal, isIdle, isStuck } = useLive();
  const [parameters, setParameters] = useSearchParams();
  const { data: screens } = useScreens();
  const [chosen = ""] = useChosenScreens();
  const [picked, setPicked] = useState<string | null>(null);
  const [choosing, setChoosing] = useState<Choosing>("nothing");
  const screenName = picked ?? screens?.find((row) => screen && row.width_px === screen.width_px && row.height_px === screen.height_px && row.scale === screen.scale)?.name ?? chosen;
  const asked = parameters.get("address");

  useEffect(() => {
    connection.connect();
    return () => connection.disconnect();
  }, []);

  const open = useCallback(
    (address: string, name: string) => {
      const found = screens?.find((row) => row.name === name) ?? screens?.[0];
      if (found) connection.open(address, sizeOf(found));
    },
    [screens],
  );
  // What the address of this screen asks for is opened once.
  useEffect(() => {
    if (!asked || !screens || link !== "on") return;
    open(asked, chosen);
    setParameters({}, { replace: true });
  }, [asked, screens, link, open, chosen, setParameters]);

  const take = useCallback((extent: "full" | "view") => connection.take({ extent }), []);
  const takePart = (target: string) => {
    connection.take({ extent: choosing === "panel" ? "panel" : "element", target });
    setChoosing("nothing");
  };
  const takeArea = (area: Area) => {
    connection.take({ extent: "view", area });
    setChoosing("nothing");
  };
  return (
    <main className="mx-auto flex h-[calc(100dvh-3.25rem)] max-w-[110rem] flex-col px-4 pt-3 pb-3">
      {screen && <h1 className="sr-only">A live page</h1>}
      <LiveBar
        screenName={screenName}
        onScreen={(name) => {
          setPicked(name);
          const { place } = useLive.getState();
          if (screen && place) open(place.address, name);
        }}
        // Before the screens are known it waits for them, as what the address of this screen asks for.
        onOpen={(address) => (screens ? open(address, screenName) : setParameters({ address }, { replace: true }))}
      />
      {isIdle && (
        <p role="alert" className="mt-2 flex items-center gap-3 border-l-4 border-warning bg-base-200 px-3 py-2">
          Nobody has used this page for nine minutes. It is closed in one more.
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => {
              connection.send({ kind: "stay" });
              useLive.setState({ isIdle: false });
            }}
          >
            Keep it open
          </button>
        </p>
      )}
      {isStuck && (
        <p role="alert" className="mt-2 flex items-center gap-3 border-l-4 border-warning bg-base-200 px-3 py-2">
          The page does not react: its own scripts keep it busy.
          <button type="button" className="btn btn-sm" onClick={() => connection.send({ kind: "open_again" })}>
            Open it again
          </button>
        </p>
      )}
      {refusal && (
        <div className="mt-2">
          <ProblemNote sentence={refusal.sentence} hint={refusal.hint ?? ""} />
        </div>
      )}
      {screen ? (
        <div className="mt-3 flex min-h-0 flex-1 gap-4">
          <div className="flex min-w-0 flex-1 flex-col">
            <LiveView screen={screen} choosing={choosing} onElement={takePart} onArea={takeArea} onCancel={() => setChoosing("nothing")} />
            <LiveTyping />
          </div>
          <div className="grid w-72 shrink-0 grid-cols-[minmax(0,1fr)] content-start gap-5 overflow-x-hidden overflow-y-auto">
            <LiveTake choosing={choosing} onChoose={setChoosing} onTake={take} />
            <LiveSteps />
            <LiveTaken />
            <button type="button" className="btn btn-ghost btn-sm justify-self-start" onClick={() => connection.send({ kind: "close" })}>
              Close the page
            </button>
          </div>
        </div>
      ) : (
        <Closed />
      )}
      <LiveDialog />
    </main>
  );
}

/** Before a page is open, and after it. */
function Closed() {
  const { link, ended, place } = useLive();
  return (
    <div className="mx-auto mt-10 grid max-w-2xl gap-4">
      {link === "elsewhere" && (
        <p role="status" className="border-l-4 border-info bg-base-200 px-3 py-2">
          Your live page goes on in another tab.{" "}
          <button type="button" className="link" onClick={() => connection.connect()}>
            Bring it here
          </button>
        </p>
      )}
      {link === "not_allowed" && <ProblemNote sentence="With this account you cannot use live pages." hint="Ask a producer." />}
      {link === "lost" && <p role="status">Tall Page does not answer. It is tried again.</p>}
      {ended?.sentence && (
        <ProblemNote sentence={ended.sentence} hint={ended.hint ?? ""}>
          {place && link === "on" && (
            <button
              type="button"
              className="btn btn-sm mt-2"
              onClick={() => {
                const size = useLive.getState().lastScreen;
                if (size) connection.open(place.address, size);
              }}
            >
              Open it again
            </button>
          )}
        </ProblemNote>
      )}
      <h1 className="text-xl font-semibold">Use a page before it is taken</h1>
      <p>Open its address above, then sign in, open a menu, close a notice, choose a date: the page runs in the server’s browser, and you use it here.</p>
      <p>What is open under your pointer stays open in the picture. What you did is kept with it as steps, for the next time it is taken.</p>
    </div>
  );
}

/** What was taken since the screen was opened: it is on the shelf already. */
function LiveTaken() {
  const taken = useLive((state) => state.taken);
  if (taken.length === 0) return null;
  return (
    <section aria-labelledby="taken" data-taken={taken.length}>
      <h2 id="taken" className="mb-1 font-semibold">
        Taken, on the shelf
      </h2>
      <ul className="grid gap-2">
        {[...taken].reverse().map((row) => (
          <li key={row.capture}>
            <Link to={`/captures/${row.capture}`} className="flex gap-2 hover:underline">
              <img src={`/api/captures/${row.capture}/thumbnail`} alt="" className="h-14 w-16 shrink-0 border border-base-300 object-cover object-top" />
              <span className="min-w-0 text-sm">
                <span className="block truncate">{row.name}</span>
                <span className="figure">{formatSize(row.width_px, row.height_px)}</span>
                {row.warnings[0] && <span className="block text-error">{row.warnings[0]}</span>}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
