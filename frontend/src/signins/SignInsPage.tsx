import { Trash2 } from "lucide-react";
import { useSearchParams } from "react-router";

import { asProblem } from "../api/client";
import { useDeleteSignIn, useSignIns } from "../api/signins";
import type { SignIn } from "../api/types";
import { formatDay } from "../parts/figures";
import { ProblemNote } from "../parts/ProblemNote";
import { useTitle } from "../parts/useTitle";
import { SignInForm } from "./SignInForm";

const KINDS: Record<SignIn["kind"], string> = {
  form: "fills in its sign-in page as",
  basic: "answers its sign-in as",
  state: "brings",
};

/** Which hosts pages are opened signed in at. What is secret goes in here, and is never shown again. */
export function SignInsPage() {
  useTitle("Sign-ins");
  const [query] = useSearchParams();
  const signIns = useSignIns();
  return (
    <main className="mx-auto max-w-4xl px-6 pt-6 pb-16">
      <h1 className="mb-1 text-xl font-semibold">Sign-ins</h1>
      <p className="mb-6">
        One for each host whose pages need it, used whenever a page of that host is taken. They are kept sealed in your
        data folder; what is secret is never shown again.
      </p>
      {signIns.isPending && <p>Fetching the sign-ins…</p>}
      {signIns.isError && <ProblemNote sentence={asProblem(signIns.error).sentence} hint={asProblem(signIns.error).hint} />}
      {signIns.data?.length === 0 && <p className="py-4">No sign-in is saved yet. Most pages need none.</p>}
      <ul className="mb-8">
        {signIns.data?.map((row) => (
          <Line key={row.id} signIn={row} />
        ))}
      </ul>
      <SignInForm host={query.get("host") ?? ""} page={query.get("page") ?? ""} />
    </main>
  );
}

function Line({ signIn }: { signIn: SignIn }) {
  const remove = useDeleteSignIn();
  return (
    <li className="flex items-center gap-3 border-b border-base-300 py-2" data-sign-in={signIn.host}>
      <span className="figure font-medium">{signIn.host}</span>
      <span className="min-w-0 flex-1 truncate text-sm">
        {KINDS[signIn.kind]} {signIn.label}
      </span>
      <time className="figure text-sm" dateTime={signIn.saved_at}>
        {formatDay(signIn.saved_at)}
      </time>
      <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Forget the sign-in for ${signIn.host}`} title="Forget it" onClick={() => remove.mutate(signIn.id)}>
        <Trash2 size={14} aria-hidden />
      </button>
    </li>
  );
}
