import { useQuery } from "@tanstack/react-query";
import { LogOut, Settings } from "lucide-react";
import { Link } from "react-router";

import { answered, api, csrfToken } from "../api/client";
import { useFetchedKeys } from "../api/keys";
import { useSettings } from "../api/settings";

/** The way to the settings; who is signed in, and the way out, where somebody signs in. */
export function Person() {
  // Chosen elsewhere, they count here too.
  useFetchedKeys();
  useSettings();
  const { data } = useQuery({ queryKey: ["me"], queryFn: () => answered(api.GET("/api/me")), staleTime: Infinity });
  const settings = (
    <Link to="/settings" className="btn btn-square btn-ghost btn-sm" aria-label="Settings" title="Settings">
      <Settings size={18} aria-hidden />
    </Link>
  );
  if (!data?.name) return settings;
  return (
    <>
    {settings}
    <form method="post" action="/account/sign-out" className="flex items-center gap-2 text-sm">
      <input type="hidden" name="csrfmiddlewaretoken" value={csrfToken()} />
      <span className="max-w-32 truncate" title={data.role === "viewer" ? "A viewer: looks, searches and saves files" : "A producer"}>
        {data.name}
        {data.role === "viewer" && ", viewer"}
      </span>
      <button type="submit" className="btn btn-square btn-ghost btn-sm" aria-label={`Sign ${data.name} out`} title="Sign out">
        <LogOut size={17} aria-hidden />
      </button>
    </form>
    </>
  );
}
