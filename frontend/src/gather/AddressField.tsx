import { lazy, Suspense, useState } from "react";
import { Link, useNavigate } from "react-router";

import { useTakePage } from "../api/captures";
import { asProblem, type Problem } from "../api/client";
import { useFetchScreens } from "../api/screens";
import { useNotices } from "../app/notices";
import { own } from "../app/own";
import { ProblemNote } from "../parts/ProblemNote";
import { splitAddresses, useAskedAddress } from "./addresses";
import { useChosenScreens } from "./screenChoice";
import { useTakeChanges } from "./taking/takeSettings";

const MANY = 4;
const RunBeside = lazy(() => import("../routines/RunBeside").then(({ RunBeside }) => ({ default: RunBeside })));

interface Refused {
  address: string;
  problem: Problem;
}

/**
 * The one field for addresses: large on Gather, compact in the top bar. Enter takes; the field is
 * free at once. What was refused stays in the field, with the reason.
 */
export function AddressField({ compact = false }: { compact?: boolean }) {
  const asked = useAskedAddress();
  const [text, setText] = useState(compact ? "" : asked);
  const [refused, setRefused] = useState<Refused[]>([]);
  const fetchScreens = useFetchScreens();
  const chosen = useChosenScreens();
  const settings = useTakeChanges((state) => state.changes);
  const take = useTakePage();
  const navigate = useNavigate();
  const show = useNotices((state) => state.show);

  const submit = async () => {
    const addresses = splitAddresses(text);
    let taken = 0;
    let latest = 0;
    setText("");
    setRefused([]);
    if (addresses.length === 0) addresses.push("");
    const failures: Refused[] = [];
    for (const address of addresses) {
      try {
        for (const { name, width_px, height_px, scale, touch } of await fetchScreens()) {
          if (!chosen.includes(name)) continue;
          latest = (await take.mutateAsync({ address, screen: { width_px, height_px, scale, touch }, settings })).id;
          taken += 1;
        }
      } catch (error) {
        failures.push({ address, problem: asProblem(error) });
      }
    }
    if (failures.length > 0) {
      setText((typed) => [...failures.map((row) => row.address), ...splitAddresses(typed)].join("\n"));
      if (compact) {
        for (const { problem } of failures) show({ tone: "error", text: problem.sentence, hint: problem.hint });
      } else setRefused(failures);
    } else if (taken === 1 && own<string>("after.what", "") === "bench") {
      void navigate(`/captures/${latest}`);
    } else if (compact) {
      show({ tone: "info", text: taken === 1 ? "The page is being taken." : `${taken} pages are being taken.` });
    }
  };

  const lines = Math.min(8, Math.max(1, text.split("\n").length));
  return (
    <form
      className={compact ? "w-full max-w-xl" : "w-full"}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <div className="flex items-start gap-2">
        <textarea
          data-address-field
          aria-label="Address of the page, or several"
          className={`textarea min-h-0 flex-1 resize-none bg-base-100 ${compact ? "h-8 overflow-hidden py-1 leading-5" : "py-3 text-lg leading-7"}`}
          rows={compact ? 1 : lines}
          placeholder={compact ? "Take another page: paste its address" : "Paste an address and press Enter"}
          value={text}
          spellCheck={false}
          autoFocus={!compact}
          autoComplete="off"
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && !event.shiftKey && !event.nativeEvent.isComposing) {
              event.preventDefault();
              void submit();
            }
          }}
        />
        {text.trim() && (
          <Suspense>
            <RunBeside text={text} compact={compact} onTaken={() => setText("")} />
          </Suspense>
        )}
        <button type="submit" className={compact ? "btn btn-primary btn-sm" : "btn btn-primary h-[54px] px-7 text-lg"}>
          Take page
        </button>
      </div>
      {!compact && splitAddresses(text).length >= MANY && (
        <Link to="/sweeps/new" state={{ text }} className="link link-primary mt-2 inline-block text-sm">
          Check these as a list first, and name what comes of it
        </Link>
      )}
      {refused.map(({ address, problem }) => (
        <div key={address} className="mt-3">
          <ProblemNote sentence={problem.sentence} hint={problem.hint} />
        </div>
      ))}
    </form>
  );
}
