import { KeyRound, X } from "lucide-react";
import { useState } from "react";

import { type AccountChange, useAccounts, useChangeAccounts } from "../../api/accounts";
import type { Account } from "../../api/types";
import { showProblem } from "../../app/showProblem";
import { Pick } from "../../parts/fields/Pick";
import { formatDay } from "../../parts/figures";
import { Panel } from "../../parts/Panel";
import { Secret } from "./Secret";

const SCOPES = { read: "It only reads", all: "It does what the account may" };

interface Made {
  what: string;
  secret: string;
}

/** Who may come in, and what their scripts sign in by. */
export function Accounts() {
  const told = useAccounts();
  const change = useChangeAccounts();
  const [made, setMade] = useState<Made | null>(null);
  const [name, setName] = useState("");
  const [role, setRole] = useState<"producer" | "viewer">("producer");
  const send = async (what: AccountChange, words = "") => {
    try {
      const secret = await change.mutateAsync(what);
      setMade(secret === null ? null : { what: words, secret });
    } catch (error) {
      showProblem(error);
    }
  };
  if (!told.data) return null;
  const { needed, keeper, accounts } = told.data;
  return (
    <section className="mb-8" aria-label="Accounts and tokens">
      <h2 className="mb-1 font-semibold">Accounts and tokens</h2>
      <p className="mb-2 text-sm">
        {needed ? "Whoever comes here signs in." : "At this machine nobody signs in; a script does, by a token of an account."} A token stands in the header{" "}
        <span className="figure">Authorization: Bearer …</span> of each request.
      </p>
      {made && <Secret {...made} />}
      <ul>
        {accounts.map((account) => (
          <AccountLine key={account.id} account={account} keeper={keeper} onSend={send} />
        ))}
      </ul>
      {accounts.length === 0 && <p className="border-t border-base-300 py-3 text-sm">There is no account yet.</p>}
      {keeper && (
        <form
          className="flex flex-wrap items-center gap-3 border-t border-base-300 py-3 text-sm"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) void send({ kind: "add", name: name.trim(), role }, `The password of ${name.trim()}`).then(() => setName(""));
          }}
        >
          <input className="input input-sm w-48" aria-label="Name of the new account" placeholder="Name of another account" maxLength={150} autoComplete="off" value={name} onChange={(event) => setName(event.target.value)} />
          <Pick name="new-role" value={role} options={{ producer: "does everything", viewer: "looks and saves" }} onPick={setRole} />
          <button type="submit" className="btn btn-sm" disabled={!name.trim()}>
            Add account
          </button>
        </form>
      )}
    </section>
  );
}

interface AccountLineProps {
  account: Account;
  keeper: boolean;
  onSend: (change: AccountChange, words?: string) => Promise<void>;
}

function AccountLine({ account, keeper, onSend }: AccountLineProps) {
  const { id, name } = account;
  const is = [account.role === "viewer" ? "looks and saves" : "does everything", account.keeper && "looks after accounts", account.closed && "closed", account.last_here_at && `last here ${formatDay(account.last_here_at)}`];
  return (
    <li className="border-t border-base-300 py-3 text-sm" data-account={name}>
      <div className="flex flex-wrap items-center gap-2">
        <span className="font-medium">{name}</span>
        <span className="mr-auto">{is.filter(Boolean).join(", ")}</span>
        {keeper && (
          <Panel label="Change" name={`Change the account of ${name}`} button="btn-xs">
            <div className="grid justify-items-start gap-2">
              <button type="button" className="btn btn-xs" onClick={() => void onSend({ kind: "role", id, role: account.role === "viewer" ? "producer" : "viewer" })}>
                {account.role === "viewer" ? "Let it do everything" : "Let it only look and save"}
              </button>
              <button type="button" className="btn btn-xs" onClick={() => void onSend({ kind: "keeper", id, keeper: !account.keeper })}>
                {account.keeper ? "No longer let it look after accounts" : "Let it look after accounts"}
              </button>
              <button type="button" className="btn btn-xs" onClick={() => void onSend({ kind: "password", id }, `The new password of ${name}`)}>
                Make up a new password
              </button>
              <button type="button" className="btn btn-xs" onClick={() => void onSend({ kind: "close", id, closed: !account.closed })}>
                {account.closed ? "Open it again" : "Close it"}
              </button>
            </div>
          </Panel>
        )}
        <TokenPanel account={account} onSend={onSend} />
      </div>
      <ul>
        {account.tokens.map((token) => (
          <li key={token.id} className="mt-1 flex items-center gap-2 pl-4" data-token={token.label}>
            <KeyRound size={14} aria-hidden />
            <span className="min-w-0 truncate">
              {token.label || `token ${token.id}`}, {token.scope === "read" ? "only reads" : "everything"}, {token.used_at ? `last used ${formatDay(token.used_at)}` : "never used"}
            </span>
            <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Revoke the token ${token.label || token.id}`} title="Revoke it" onClick={() => void onSend({ kind: "revoke", tokenId: token.id })}>
              <X size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
    </li>
  );
}

function TokenPanel({ account, onSend }: Omit<AccountLineProps, "keeper">) {
  const [label, setLabel] = useState("");
  const [scope, setScope] = useState<"read" | "all">("read");
  return (
    <Panel label="Make a token" name={`Make a token for ${account.name}`} button="btn-xs">
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void onSend({ kind: "token", id: account.id, label, scope }, `The token of ${account.name}`);
        }}
      >
        <label className="grid gap-1">
          What it is for
          <input className="input input-sm w-full" maxLength={80} placeholder="nightly pictures" value={label} onChange={(event) => setLabel(event.target.value)} />
        </label>
        {account.role === "producer" && <Pick name={`scope-${account.id}`} value={scope} options={SCOPES} onPick={setScope} />}
        <button type="submit" className="btn btn-primary btn-sm justify-self-start">
          Make it
        </button>
      </form>
    </Panel>
  );
}
