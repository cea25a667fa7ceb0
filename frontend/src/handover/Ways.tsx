import { Archive, ClipboardCopy, CodeXml, FileText, FolderDown, HardDriveDownload, Link2, type LucideIcon, Mail, Upload } from "lucide-react";
import type { ComponentType } from "react";

import type { What } from "../api/types";
import type { Handed } from "./HandOverPanel";
import { useRemembered } from "./remembered";
import { RightsAsked } from "./RightsAsked";
import { ArchiveWay } from "./ways/ArchiveWay";
import { CopyWay } from "./ways/CopyWay";
import { DiskWay } from "./ways/DiskWay";
import { FolderWay } from "./ways/FolderWay";
import { LinkWay } from "./ways/LinkWay";
import { MailWay } from "./ways/MailWay";
import { PdfWay } from "./ways/PdfWay";
import { SnippetWay } from "./ways/SnippetWay";
import { UploadWay } from "./ways/UploadWay";

interface Way {
  id: string;
  words: string;
  icon: LucideIcon;
  shows: ComponentType<{ handed: Handed }>;
  /** Whether it needs a row of the ledger. */
  ofRow?: boolean;
  /** Whether it is for captures as a whole. */
  ofCaptures?: boolean;
}

const WAYS: Way[] = [
  { id: "disk", words: "Own disk", icon: HardDriveDownload, shows: DiskWay },
  { id: "copy", words: "Clipboard", icon: ClipboardCopy, shows: CopyWay, ofRow: true },
  { id: "pdf", words: "PDF and print", icon: FileText, shows: PdfWay },
  { id: "link", words: "Link", icon: Link2, shows: LinkWay },
  { id: "mail", words: "Mail", icon: Mail, shows: MailWay },
  { id: "upload", words: "Upload", icon: Upload, shows: UploadWay, ofRow: true },
  { id: "snippet", words: "HTML snippet", icon: CodeXml, shows: SnippetWay, ofRow: true },
  { id: "folder", words: "Server folder", icon: FolderDown, shows: FolderWay },
  { id: "archive", words: "Archive", icon: Archive, shows: ArchiveWay, ofCaptures: true },
];

const isOfCaptures = ({ captures, sweep }: What) => (captures?.length ?? 0) > 0 || sweep != null;

/** Which way, and what there is to say about it. The last one is there again the next time. */
export function Ways({ handed }: { handed: Handed }) {
  const [last, setLast] = useRemembered("way", { id: "disk" });
  const possible = WAYS.filter((way) => (!way.ofRow || handed.output) && (!way.ofCaptures || isOfCaptures(handed.what)));
  const chosen = possible.find((way) => way.id === last.id) ?? WAYS[0];
  if (!chosen) return null;
  return (
    <RightsAsked what={handed.what}>
      <div className="flex min-h-96">
        <div className="flex w-36 shrink-0 flex-col border-r border-base-300 py-2" role="group" aria-label="Ways out">
          {possible.map(({ id, words, icon: Icon }) => (
            <button
              key={id}
              type="button"
              aria-pressed={id === chosen.id}
              className={`flex items-center gap-2 border-l-2 px-3 py-1.5 text-left ${id === chosen.id ? "border-accent font-semibold" : "border-transparent hover:bg-base-200"}`}
              onClick={() => setLast({ id })}
            >
              <Icon size={15} aria-hidden /> {words}
            </button>
          ))}
        </div>
        <div className="min-w-0 flex-1 p-4" data-way={chosen.id}>
          <chosen.shows handed={handed} />
        </div>
      </div>
    </RightsAsked>
  );
}
