import { useQuery } from "@tanstack/react-query";
import { LogOut } from "lucide-react";

import { answered, api, csrfToken } from "../api/client";
import { useFetchedKeys } from "../api/keys";

/** Who is signed in, and the way out; nothing where nobody signs in. */
export function Person() {
  useFetchedKeys(); // chosen elsewhere, they are heard here too
  const { data } = useQuery({ queryKey: ["me"], queryFn: () => answered(api.GET("/api/me")), staleTime: Infinity });
  if (!data?.name) return null;
  return (
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
  );
}
