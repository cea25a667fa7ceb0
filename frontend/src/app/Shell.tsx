import { Keyboard, Moon, Sun } from "lucide-react";
import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { Link, NavLink, Outlet, useLocation, useNavigate } from "react-router";

import { AddressField } from "../gather/AddressField";
import { PictureDrop } from "../gather/PictureDrop";
import { useKeys } from "./actions/useKeys";
import { useNotices } from "./notices";
import { ScreenGuard } from "./ScreenGuard";
import { chooseOwn, useOwn } from "./own";
import { applyTheme, themeOf } from "./theme";
import { useScrollMemory } from "./historyStep";

// Fetched when they are first needed.
const KeysHelp = lazy(() => import("./KeysHelp").then(({ KeysHelp }) => ({ default: KeysHelp })));
const Person = lazy(() => import("./Person").then(({ Person }) => ({ default: Person })));
const Notices = lazy(() => import("./Notices").then(({ Notices }) => ({ default: Notices })));

const SCREENS = [
  { to: "/", label: "Gather" },
  { to: "/shelf", label: "Shelf" },
  { to: "/sweeps", label: "Sweeps" },
  { to: "/routines", label: "Routines" },
  { to: "/outlets", label: "Outlets" },
] as const;

/** What is around every screen: the top bar, the keys, the place where pictures can be dropped. */
export function Shell() {
  const [helpOpen, setHelpOpen] = useState(false);
  const somethingSaid = useNotices((state) => state.begun);
  const theme = themeOf(useOwn((state) => state.values["show.theme"]));
  const navigate = useNavigate();
  const location = useLocation();
  const onGather = location.pathname === "/";

  useKeys("gather", () => void navigate("/"));
  useKeys("shelf", () => void navigate("/shelf"));
  useKeys("sweeps", () => void navigate("/sweeps"));
  useKeys("routines", () => void navigate("/routines"));
  useKeys("outlets", () => void navigate("/outlets"));
  useKeys("help", () => setHelpOpen((open) => !open), {
    useKey: true,
    ignoreModifiers: true, // which keys make a question mark depends on the keyboard
  });
  useKeys("address", () => document.querySelector<HTMLTextAreaElement>("[data-address-field]")?.focus(), {
    preventDefault: true,
  });

  const scroller = useRef<HTMLDivElement>(null);
  useScrollMemory(scroller, "screen");

  useEffect(() => applyTheme(theme), [theme]);
  const other = theme === "day" ? "night" : "day";
  return (
    <PictureDrop>
      <div className="flex h-full flex-col">
        <header className="flex h-12 shrink-0 items-center gap-2 border-b border-base-300 px-3 sm:gap-5 sm:px-4">
          <Link to="/" className="flex items-center gap-2 font-semibold" aria-label="Tall Page: Gather">
            <img src="/static/tallpage.svg" alt="" className="h-7 w-7" />
            <span className="hidden whitespace-nowrap sm:inline">Tall Page</span>
          </Link>
          <nav className="flex sm:gap-1" aria-label="Screens">
            {SCREENS.map((screen) => (
              <NavLink
                key={screen.to}
                to={screen.to}
                end={screen.to === "/"}
                className={({ isActive }) =>
                  `border-b-2 px-2 py-1 ${isActive ? "border-accent font-semibold" : "border-transparent hover:border-base-300"}`
                }
              >
                {screen.label}
              </NavLink>
            ))}
          </nav>
          <div className="hidden min-w-0 flex-1 justify-center md:flex">{!onGather && <AddressField compact />}</div>
          <div className="ml-auto flex gap-1 md:ml-0">
            <Suspense>
              <Person />
            </Suspense>
            <button
              type="button"
              className="btn btn-square btn-ghost btn-sm max-sm:hidden"
              aria-label={theme === "day" ? "Night colours" : "Day colours"}
              title={theme === "day" ? "Night colours" : "Day colours"}
              onClick={() => chooseOwn("show.theme", other)}
            >
              {theme === "day" ? <Moon size={18} aria-hidden /> : <Sun size={18} aria-hidden />}
            </button>
            <button type="button" className="btn btn-square btn-ghost btn-sm max-sm:hidden" aria-label="Keys" title="Keys (?)" onClick={() => setHelpOpen(true)}>
              <Keyboard size={18} aria-hidden />
            </button>
          </div>
        </header>
        <div ref={scroller} className="relative min-h-0 flex-1 overflow-y-auto">
          <ScreenGuard at={location.pathname}>
            <Suspense fallback={<p className="p-8">Fetching the screen…</p>}>
              <Outlet />
            </Suspense>
          </ScreenGuard>
        </div>
      </div>
      <Suspense fallback={null}>
        {helpOpen && <KeysHelp onClose={() => setHelpOpen(false)} />}
        {somethingSaid && <Notices />}
      </Suspense>
    </PictureDrop>
  );
}
