import { useState } from "react";

import { asProblem, type Problem } from "../api/client";
import { type NewSignIn, useSaveSignIn } from "../api/signins";
import { useNotices } from "../app/notices";
import { Pick } from "../parts/fields/Pick";
import { ProblemNote } from "../parts/ProblemNote";

type Kind = NewSignIn["kind"];
const KINDS: Record<Kind, string> = {
  form: "A sign-in page",
  basic: "Browser password prompt",
  state: "Cookies from a file",
};
const EXPLAINED: Record<Kind, string> = {
  form: "The page is opened once, the name and password are filled in, and the visit goes on from there.",
  basic: "For pages where the browser itself asks for a name and password, before it shows anything.",
  state: "From a browser that is signed in: storage state or cookies as JSON, or cookies.txt.",
};

/** Saving a sign-in; one that was saved for the same host before gives way. */
export function SignInForm({ host: askedHost, page }: { host: string; page: string }) {
  const save = useSaveSignIn();
  const show = useNotices((state) => state.show);
  const [kind, setKind] = useState<Kind>("form");
  const [host, setHost] = useState(askedHost);
  const [address, setAddress] = useState(page);
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [fields, setFields] = useState({ name_field: "", password_field: "", button: "" });
  const [file, setFile] = useState<File | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const complete = host.trim() && (kind === "state" ? file : name.trim()) && (kind !== "form" || address.trim());

  const made = (): NewSignIn => {
    if (kind === "state" && file) return { kind, host, file };
    if (kind === "form") return { kind, form: { host, address, name, password, ...fields } };
    return { kind: "basic", basic: { host, name, password } };
  };
  const submit = () =>
    save.mutate(made(), {
      onSuccess: (saved) => {
        show({ tone: "info", text: `The sign-in for ${saved.host} is saved.` });
        setPassword("");
        setProblem(null);
      },
      onError: (error) => setProblem(asProblem(error)),
    });
  return (
    <form
      className="space-y-4 border-t border-base-content/60 pt-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (complete) submit();
      }}
    >
      <h2 className="font-semibold">Save a sign-in</h2>
      <Pick name="kind" value={kind} onPick={setKind} options={KINDS} />
      <p className="text-sm">{EXPLAINED[kind]}</p>
      <div className="grid max-w-2xl grid-cols-2 gap-x-4 gap-y-3">
        <Field label="For pages of the host" value={host} onChange={setHost} placeholder="intranet.example" />
        {kind === "form" && <Field label="Address of its sign-in page" value={address} onChange={setAddress} placeholder="intranet.example/sign-in" />}
        {kind !== "state" && (
          <>
            <Field label="Name" value={name} onChange={setName} autoComplete="off" />
            <Field label="Password" value={password} onChange={setPassword} type="password" autoComplete="new-password" />
          </>
        )}
        {kind === "state" && (
          <label className="text-sm">
            File
            <input type="file" className="file-input file-input-sm w-full" accept=".json,.txt" onChange={(event) => setFile(event.target.files?.[0] ?? null)} />
          </label>
        )}
      </div>
      {kind === "form" && (
        <details className="text-sm">
          <summary className="cursor-pointer">The fields are usually found; if not, say which they are</summary>
          <div className="mt-2 grid max-w-2xl grid-cols-3 gap-4">
            <Field label="Name field" value={fields.name_field} onChange={(name_field) => setFields({ ...fields, name_field })} placeholder="#user" />
            <Field label="Password field" value={fields.password_field} onChange={(password_field) => setFields({ ...fields, password_field })} placeholder="#word" />
            <Field label="Button" value={fields.button} onChange={(button) => setFields({ ...fields, button })} placeholder={'"Sign in"'} />
          </div>
        </details>
      )}
      {problem && <ProblemNote sentence={problem.sentence} hint={problem.hint} />}
      <button type="submit" className="btn btn-primary btn-sm" disabled={!complete || save.isPending}>
        Save sign-in
      </button>
    </form>
  );
}

interface FieldProps {
  label: string;
  value: string;
  onChange: (value: string) => void;
  type?: "text" | "password";
  placeholder?: string;
  autoComplete?: string;
}

function Field({ label, value, onChange, type = "text", ...more }: FieldProps) {
  return (
    <label className="text-sm">
      {label}
      <input className="input input-sm w-full" type={type} spellCheck={false} value={value} onChange={(event) => onChange(event.target.value)} {...more} />
    </label>
  );
}
