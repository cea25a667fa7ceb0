import { Upload } from "lucide-react";
import { useState } from "react";

import { asProblem } from "../api/client";
import { useSetUpload, useUploadPlaces } from "../api/handover";
import type { Outlet, UploadPlace, UploadPlaceIn } from "../api/types";
import { ProblemNote } from "../parts/ProblemNote";

const KINDS = [
  { kind: "form", words: "A form of the site, with a token" },
  { kind: "webdav", words: "WebDAV, with a name and a password" },
  { kind: "folder", words: "A folder of the server that the site watches" },
] as const;
const NONE: UploadPlaceIn = { kind: "form", address: "", user: "", folder: "", secret: "" };

/** Where the files of an outlet are uploaded to, and how that is said. */
export function UploadPlaceLine({ outlet }: { outlet: Outlet }) {
  const places = useUploadPlaces();
  const place = places.data?.find((row) => row.outlet === outlet.id);
  const [editing, setEditing] = useState(false);
  if (!places.data) return null;
  if (editing) return <UploadForm outlet={outlet} place={place} onDone={() => setEditing(false)} />;
  return (
    <p className="flex flex-wrap items-center gap-2 py-2 text-sm" data-upload-of={outlet.id}>
      <Upload size={14} aria-hidden />
      {place ? <span className="min-w-0 break-all">{inWords(place)}</span> : <span className="text-info">No upload: files are saved, and brought there by hand.</span>}
      <button type="button" className="btn btn-ghost btn-xs" onClick={() => setEditing(true)}>
        {place ? "Change the upload" : "Set up an upload"}
      </button>
    </p>
  );
}

function inWords(place: UploadPlace): string {
  if (place.kind === "folder") return `Uploads go into the folder ${place.folder}`;
  const signedIn = place.has_secret ? "" : ", not signed in";
  return `Uploads go to ${place.address}${place.user && ` as ${place.user}`}${signedIn}`;
}

function UploadForm({ outlet, place, onDone }: { outlet: Outlet; place: UploadPlace | undefined; onDone: () => void }) {
  const [said, setSaid] = useState<UploadPlaceIn>(place ? { kind: place.kind, address: place.address, user: place.user, folder: place.folder, secret: "" } : NONE);
  const set = useSetUpload(outlet.id);
  const say = (change: Partial<UploadPlaceIn>) => setSaid({ ...said, ...change });
  const keptSecret = place?.has_secret && place.kind === said.kind && place.address === said.address && place.user === said.user;
  return (
    <form
      className="my-2 grid max-w-2xl gap-3 border border-base-300 p-3 text-sm"
      aria-label={`Upload of ${outlet.name}`}
      onSubmit={(event) => {
        event.preventDefault();
        set.mutate(said, { onSuccess: onDone });
      }}
    >
      <label className="grid gap-1">
        How files are uploaded
        <select className="select select-sm" value={said.kind} onChange={(event) => say({ kind: event.target.value as UploadPlaceIn["kind"] })}>
          {KINDS.map((row) => (
            <option key={row.kind} value={row.kind}>
              {row.words}
            </option>
          ))}
        </select>
      </label>
      {said.kind === "folder" ? (
        <Words label="Name of the folder, beside those that are saved on the server" value={said.folder} onSay={(folder) => say({ folder })} />
      ) : (
        <>
          <Words label="Address" value={said.address} placeholder="https://news.example/media" onSay={(address) => say({ address })} />
          {said.kind === "webdav" && <Words label="Name" value={said.user} onSay={(user) => say({ user })} />}
          <Words
            label={said.kind === "form" ? "Token" : "Password"}
            type="password"
            value={said.secret}
            placeholder={keptSecret ? "the one that is there stays" : ""}
            onSay={(secret) => say({ secret })}
          />
        </>
      )}
      {set.isError && <ProblemNote sentence={asProblem(set.error).sentence} hint={asProblem(set.error).hint} />}
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm" disabled={set.isPending}>
          Save the upload
        </button>
        <button type="button" className="btn btn-sm" onClick={onDone}>
          Leave it
        </button>
        {place && (
          <button type="button" className="btn btn-ghost btn-sm ml-auto" onClick={() => set.mutate(null, { onSuccess: onDone })}>
            No upload any more
          </button>
        )}
      </div>
    </form>
  );
}

interface WordsProps {
  label: string;
  value: string | undefined;
  placeholder?: string;
  type?: "text" | "password";
  onSay: (text: string) => void;
}

function Words({ label, value, placeholder, type = "text", onSay }: WordsProps) {
  return (
    <label className="grid gap-1">
      {label}
      <input className="input input-sm w-full" type={type} autoComplete="off" placeholder={placeholder} maxLength={2_000} value={value ?? ""} onChange={(event) => onSay(event.target.value)} />
    </label>
  );
}
