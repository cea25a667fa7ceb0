import { CopyButton } from "../../handover/Copied";

/** Something that was made up, shown this once. */
export function Secret({ what, secret }: { what: string; secret: string }) {
  return (
    <p className="my-2 flex flex-wrap items-center gap-2 border border-base-content p-2 text-sm" role="status" data-secret>
      {what}: <code className="figure break-all">{secret}</code>
      <CopyButton text={secret} label="Copy it" />
      <span>It is shown only now.</span>
    </p>
  );
}
