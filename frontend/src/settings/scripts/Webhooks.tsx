import { Trash2 } from "lucide-react";
import { useState } from "react";

import type { Message, Webhook, WebhookEvent } from "../../api/types";
import { useChangeWebhooks, useWebhooks, type WebhookChange } from "../../api/webhooks";
import { showProblem } from "../../app/showProblem";
import { formatWhen } from "../../parts/figures";
import { useNow } from "../../parts/useNow";
import { Several } from "../controls/Several";
import { Secret } from "./Secret";

const EVENTS: { value: WebhookEvent; words: string }[] = [
  { value: "capture", words: "a page that was taken" },
  { value: "sweep", words: "a sweep" },
  { value: "run", words: "a run of a routine" },
];
const ALL = EVENTS.map((row) => row.value);

/** Addresses of other programmes that are told what has finished. */
export function Webhooks() {
  const told = useWebhooks();
  const change = useChangeWebhooks();
  const [address, setAddress] = useState("");
  const [events, setEvents] = useState<string[]>(ALL);
  const [secret, setSecret] = useState("");
  const send = async (what: WebhookChange) => {
    try {
      const made = await change.mutateAsync(what);
      if (made !== null) setSecret(made);
      return true;
    } catch (error) {
      showProblem(error);
      return false;
    }
  };
  if (told.isError) return null; // who only looks is not shown whom the server tells
  return (
    <section className="mb-8" aria-label="Webhooks">
      <h2 className="mb-1 font-semibold">Webhooks</h2>
      <p className="mb-2 text-sm">Another programme is told at its address when something has finished. Each message is signed with a secret that only you and the programme know.</p>
      {secret && <Secret what="The secret" secret={secret} />}
      <ul>
        {told.data?.map((hook) => (
          <WebhookLine key={hook.id} hook={hook} onSend={send} />
        ))}
      </ul>
      <form
        className="grid gap-2 border-t border-base-300 py-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          void send({ kind: "add", address, events: events as WebhookEvent[] }).then((done) => done && setAddress(""));
        }}
      >
        <div className="flex gap-2">
          <input className="input input-sm figure min-w-0 flex-1" aria-label="Address of the programme" placeholder="https://board.example/told" spellCheck={false} value={address} onChange={(event) => setAddress(event.target.value)} />
          <button type="submit" className="btn btn-sm" disabled={!address.trim()}>
            Tell it
          </button>
        </div>
        <p id="webhook-events">of</p>
        <Several label="webhook-events" options={EVENTS} chosen={events} onChoose={setEvents} />
      </form>
    </section>
  );
}

function WebhookLine({ hook, onSend }: { hook: Webhook; onSend: (change: WebhookChange) => Promise<boolean> }) {
  const label = `webhook-${hook.id}`;
  return (
    <li className="border-t border-base-300 py-3 text-sm" data-webhook={hook.address}>
      <div className="mb-1 flex flex-wrap items-center gap-2">
        <span id={label} className="figure mr-auto min-w-0 font-medium break-all">
          {hook.address}
        </span>
        <button type="button" className="btn btn-xs" disabled={!hook.active} onClick={() => void onSend({ kind: "try", id: hook.id })}>
          Send a trial
        </button>
        <button type="button" className="btn btn-xs" onClick={() => void onSend({ kind: "active", id: hook.id, active: !hook.active })}>
          {hook.active ? "Let it rest" : "Tell it again"}
        </button>
        <button type="button" className="btn btn-square btn-ghost btn-xs" aria-label={`Remove ${hook.address}`} title="Remove it" onClick={() => void onSend({ kind: "delete", id: hook.id })}>
          <Trash2 size={14} aria-hidden />
        </button>
      </div>
      <Several label={label} options={EVENTS} chosen={hook.events} onChoose={(events) => void onSend({ kind: "events", id: hook.id, events: events as WebhookEvent[] })} />
      {hook.deliveries.length > 0 && (
        <details className="mt-2">
          <summary className="cursor-pointer">{summary(hook.deliveries)}</summary>
          <ul className="mt-1">
            {hook.deliveries.map((message) => (
              <MessageLine key={message.id} message={message} onAgain={() => void onSend({ kind: "again", messageId: message.id })} />
            ))}
          </ul>
        </details>
      )}
    </li>
  );
}

function MessageLine({ message, onAgain }: { message: Message; onAgain: () => void }) {
  const now = useNow();
  const words = message.state === "sent" ? "heard" : message.state === "failed" ? "not heard" : message.tries > 0 ? "is tried again" : "on its way";
  return (
    <li className="flex flex-wrap items-center gap-2 py-0.5" data-message={message.state}>
      <span className="w-28">{formatWhen(message.happened_at, now)}</span>
      <span className="w-28">{message.event === "trial" ? "a trial" : `${message.event} ${message.subject_id}`}</span>
      <span className={`mr-auto min-w-0 ${message.state === "failed" ? "text-error" : ""}`}>
        {words}
        {message.answer && `: ${message.answer}`}
      </span>
      <button type="button" className="btn btn-ghost btn-xs" aria-label={`Send once more: ${message.event} ${message.subject_id}`} onClick={onAgain}>
        Send once more
      </button>
    </li>
  );
}

/** Which of the latest messages need a look. */
function summary(messages: Message[]): string {
  const failed = messages.filter((row) => row.state === "failed").length;
  return failed > 0 ? `The latest ${messages.length}: ${failed} not heard` : `The latest ${messages.length}`;
}
