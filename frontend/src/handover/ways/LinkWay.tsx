import { Link2, Undo2 } from "lucide-react";
import { useState } from "react";

import { useHandOver, useLineAction } from "../../api/handover";
import type { HandOver } from "../../api/types";
import { CopyButton } from "../Copied";
import { DAYS } from "../days";
import type { Handed } from "../HandOverPanel";
import { Progress } from "../Progress";
import { useRemembered } from "../remembered";

/** A page of its own, for people without an account. */
export function LinkWay({ handed }: { handed: Handed }) {
  const [said, say] = useRemembered<{ days: number | null }>("link", { days: 7 });
  const [title, setTitle] = useState("");
  const [caption, setCaption] = useState("");
  const [word, setWord] = useState("");
  const send = useHandOver();
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate({ what: handed.what, order: { way: "link", title, caption, word, days: said.days } });
      }}
    >
      <p>A page with the picture as it is now. Whoever has its address can look at it and save it, and sees nothing else of Tall Page.</p>
      <label className="grid gap-1">
        Title
        <input className="input input-sm w-full" placeholder="the page’s title" maxLength={200} value={title} onChange={(event) => setTitle(event.target.value)} />
      </label>
      <label className="grid gap-1">
        Some words to it
        <textarea className="textarea w-full" rows={2} maxLength={5_000} value={caption} onChange={(event) => setCaption(event.target.value)} />
      </label>
      <div className="grid grid-cols-2 gap-3">
        <label className="grid gap-1">
          Open
          <select className="select select-sm" value={said.days ?? 0} onChange={(event) => say({ days: Number(event.target.value) || null })}>
            {DAYS.map((row) => (
              <option key={row.words} value={row.days ?? 0}>
                {row.words}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1">
          Asks for a word
          <input className="input input-sm w-full" placeholder="no" maxLength={100} autoComplete="off" value={word} onChange={(event) => setWord(event.target.value)} />
        </label>
      </div>
      <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={send.isPending}>
        <Link2 size={16} aria-hidden /> Make the link
      </button>
      <Progress first={send.data} error={send.error}>
        {(line) => <Shared line={line} />}
      </Progress>
    </form>
  );
}

/** A link that was made: its address, how often it was opened, and how it is taken back. */
export function Shared({ line }: { line: HandOver }) {
  const act = useLineAction();
  const { link } = line;
  if (!link) return null;
  if (!link.open) return <p data-link-state="closed">{link.taken_back_at ? "The link was taken back." : "The link has run out."}</p>;
  const address = `${window.location.origin}${link.path}`;
  return (
    <div className="grid gap-2" data-link-state="open">
      <a className="link font-mono text-xs break-all" href={link.path} target="_blank" rel="noopener">
        {address}
      </a>
      <span className="flex flex-wrap items-center gap-2">
        <CopyButton text={address} label="Copy the address" />
        <button type="button" className="btn btn-xs" onClick={() => act.mutate({ lineId: line.id, action: "take-back" })}>
          <Undo2 size={13} aria-hidden /> Take it back
        </button>
        <span className="text-info">
          {link.opened === 0 ? "Not opened yet" : `Opened ${link.opened === 1 ? "once" : `${link.opened} times`}`}
          {link.has_word && ", asks for a word"}
        </span>
      </span>
    </div>
  );
}
