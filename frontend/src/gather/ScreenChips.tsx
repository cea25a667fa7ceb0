import { Plus, X } from "lucide-react";
import { lazy, Suspense, useState } from "react";

import { useRemoveScreen, useScreens } from "../api/screens";
import { screenWords } from "../parts/figures";
import { useChosenScreens, useScreenChoice } from "./screenChoice";

// Fetched when it is opened.
const AddScreen = lazy(() => import("./AddScreen").then(({ AddScreen }) => ({ default: AddScreen })));

/** Which screens to take pages on: presets, and own ones. */
export function ScreenChips() {
  const { data: screens } = useScreens();
  const chosen = useChosenScreens();
  const { toggle, drop } = useScreenChoice();
  const remove = useRemoveScreen();
  const [adding, setAdding] = useState(false);
  return (
    <div>
      {/* Its height is kept while the screens are fetched: nothing below may move under the pointer. */}
      <div className="flex min-h-[34px] flex-wrap gap-2" role="group" aria-label="Screens">
        {screens?.map((screen) => {
          const on = chosen.includes(screen.name);
          return (
            <span key={screen.name} className="inline-flex">
              <button
                type="button"
                aria-pressed={on}
                title={screen.touch ? "Asked for as by a phone or tablet" : undefined}
                className={`rounded-selector border px-3 py-1 text-sm ${
                  on ? "border-primary bg-primary text-primary-content" : "border-base-300 hover:border-base-content"
                }`}
                onClick={() => toggle(screen.name)}
              >
                <span className="capitalize">{screen.name}</span>{" "}
                <span className="figure">{screenWords(screen)}</span>
              </button>
              {screen.own && (
                <button
                  type="button"
                  className="btn btn-square btn-ghost btn-xs self-center"
                  aria-label={`Remove the screen ${screen.name}`}
                  title="Remove this screen"
                  onClick={() => {
                    drop(screen.name);
                    remove.mutate(screen.name);
                  }}
                >
                  <X size={14} aria-hidden />
                </button>
              )}
            </span>
          );
        })}
        {!adding && (
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => setAdding(true)}>
            <Plus size={14} aria-hidden /> Screen
          </button>
        )}
      </div>
      <Suspense>{adding && <AddScreen onClose={() => setAdding(false)} />}</Suspense>
    </div>
  );
}
