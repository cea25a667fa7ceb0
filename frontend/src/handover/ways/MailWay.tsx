import { Send } from "lucide-react";
import { useState } from "react";

import { useHandOver, useWaysOut } from "../../api/handover";
import { formatBytes } from "../../parts/figures";
import type { Handed } from "../HandOverPanel";
import { asChosen, KindOf } from "../KindOf";
import { Progress } from "../Progress";
import { useRemembered } from "../remembered";

/** To one or more mail addresses, as files or as a link. */
export function MailWay({ handed }: { handed: Handed }) {
  const ways = useWaysOut();
  const [said, say] = useRemembered("mail", { to: "", as_link: false });
  const [subject, setSubject] = useState("");
  const [text, setText] = useState("");
  const [pictures, setPictures] = useState(handed.output === undefined);
  const send = useHandOver();
  if (ways.data && !ways.data.mail)
    return (
      <p>
        No mail server is named. Start Tall Page with <code>TALLPAGE_MAIL</code> and <code>TALLPAGE_MAIL_FROM</code>: the README says how.
      </p>
    );
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const order = { way: "mail", to: said.to, subject, text, as_link: said.as_link, days: 7, pattern: "" } as const;
        send.mutate({ what: asChosen(handed.what, pictures), order });
      }}
    >
      <label className="grid gap-1">
        To
        <input className="input input-sm w-full" placeholder="isa@pier.example, odd@pier.example" maxLength={3_000} value={said.to} onChange={(event) => say({ to: event.target.value })} />
      </label>
      <label className="grid gap-1">
        Subject
        <input className="input input-sm w-full" placeholder="the page’s name" maxLength={200} value={subject} onChange={(event) => setSubject(event.target.value)} />
      </label>
      <label className="grid gap-1">
        Text
        <textarea className="textarea w-full" rows={3} maxLength={5_000} value={text} onChange={(event) => setText(event.target.value)} />
      </label>
      <fieldset className="flex flex-wrap gap-4">
        <legend className="sr-only">How</legend>
        {[false, true].map((option) => (
          <label key={String(option)} className="flex items-center gap-2">
            <input type="radio" className="radio radio-xs" checked={said.as_link === option} onChange={() => say({ as_link: option })} />
            {option ? "a link, open for a week" : "the files themselves"}
          </label>
        ))}
      </fieldset>
      {!said.as_link && (
        <>
          <KindOf what={handed.what} pictures={pictures} onPictures={setPictures} />
          {ways.data && <p className="text-info">A mail takes {formatBytes(ways.data.mail_limit_bytes)}; what is more goes in several.</p>}
        </>
      )}
      <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={send.isPending}>
        <Send size={15} aria-hidden /> Send
      </button>
      <Progress first={send.data} error={send.error} />
    </form>
  );
}
