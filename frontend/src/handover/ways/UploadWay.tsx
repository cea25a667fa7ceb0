import { ExternalLink, Upload } from "lucide-react";
import { Link } from "react-router";

import { useHandOver, useUploadPlaces } from "../../api/handover";
import { useOutlets } from "../../api/outlets";
import { CopyButton } from "../Copied";
import type { Handed } from "../HandOverPanel";
import { PatternField } from "../PatternField";
import { Progress } from "../Progress";
import { useRemembered } from "../remembered";

/** To the place itself, where an outlet has an upload. */
export function UploadWay({ handed }: { handed: Handed }) {
  const outlets = useOutlets();
  const places = useUploadPlaces();
  const [said, say] = useRemembered("upload", { outlet: 0, pattern: "" });
  const send = useHandOver();
  const possible = outlets.data?.filter((outlet) => places.data?.some((place) => place.outlet === outlet.id)) ?? [];
  const own = possible.find((outlet) => outlet.slots.some((slot) => slot.id === handed.output?.slot_id));
  const chosen = own ?? possible.find((outlet) => outlet.id === said.outlet) ?? possible[0];
  if (!outlets.data || !places.data) return <p>Looking at the outlets…</p>;
  if (!chosen)
    return (
      <p>
        No outlet has an upload yet. Say under <Link className="link" to="/outlets">Outlets</Link> where the files of one go.
      </p>
    );
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        send.mutate({ what: handed.what, order: { way: "upload", outlet: chosen.id, pattern: said.pattern } });
      }}
    >
      <label className="grid gap-1">
        Outlet
        <select className="select select-sm" value={chosen.id} disabled={own !== undefined} onChange={(event) => say({ outlet: Number(event.target.value) })}>
          {possible.map((outlet) => (
            <option key={outlet.id} value={outlet.id}>
              {outlet.name}
            </option>
          ))}
        </select>
      </label>
      <PatternField what={handed.what} pattern={said.pattern} onPattern={(pattern) => say({ pattern })} />
      <button type="submit" className="btn btn-primary btn-sm justify-self-start" disabled={send.isPending}>
        <Upload size={16} aria-hidden /> Upload to {chosen.name}
      </button>
      <Progress first={send.data} error={send.error}>
        {(line) =>
          line.address && (
            <span className="flex flex-wrap items-center gap-2">
              {/^https?:/.test(line.address) ? (
                <a className="link inline-flex items-center gap-1 break-all" href={line.address} target="_blank" rel="noopener noreferrer">
                  <ExternalLink size={13} aria-hidden /> {line.address}
                </a>
              ) : (
                <span className="break-all">{line.address}</span>
              )}
              <CopyButton text={line.address} label="Copy the address" />
            </span>
          )
        }
      </Progress>
    </form>
  );
}
