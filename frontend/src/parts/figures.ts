import { own } from "../app/own";

/** The unit of a limit that is typed without one: kB of 1,000 bytes, or KiB of 1,024. */
export function sizeUnit(): "kB" | "KiB" {
  return own<"kB" | "KiB">("show.units", "kB");
}

/** How sizes of files are written, in the unit that is set. */
export function formatBytes(count: number): string {
  const binary = sizeUnit() === "KiB";
  const step = binary ? 1_024 : 1_000;
  const tail = binary ? "iB" : "B";
  if (count < step) return `${count} B`;
  // From here on the next unit would be written: a figure is never rounded up to a whole one of it.
  const most = step * step * 0.99995;
  if (count < most) return `${(count / step).toFixed(1)} ${sizeUnit()}`;
  if (count < most * step) return `${(count / step / step).toFixed(2)} M${tail}`;
  return `${(count / step / step / step).toFixed(2)} G${tail}`;
}

function dates(): string {
  return own("show.dates", "en-GB");
}

export function formatPx(count: number): string {
  return count.toLocaleString("en-GB");
}

export function formatSize(width_px: number, height_px: number): string {
  return `${width_px} × ${formatPx(height_px)}`;
}

const FORMAT_NAMES = { jpeg: "JPEG", png: "PNG", webp: "WebP", avif: "AVIF", gif: "GIF" } as const;

export function formatName(format: keyof typeof FORMAT_NAMES): string {
  return FORMAT_NAMES[format];
}

/** “WebP”; of leaves in several formats “JPEG, WebP”; nothing before there is a file. */
export function formatsOf(output: { format: keyof typeof FORMAT_NAMES | ""; leaves: { format: keyof typeof FORMAT_NAMES }[] }): string {
  const formats = output.leaves.length > 0 ? output.leaves.map((leaf) => leaf.format) : output.format ? [output.format] : [];
  return [...new Set(formats)].map(formatName).sort().join(", ");
}

/** “2 min ago”, or the date when it is not of today. */
export function formatWhen(iso: string, now: Date): string {
  const then = new Date(iso);
  const seconds = Math.max(0, (now.getTime() - then.getTime()) / 1_000);
  if (seconds < 60) return "just now";
  if (seconds < 3_600) return `${Math.floor(seconds / 60)} min ago`;
  if (then.toDateString() === now.toDateString())
    return then.toLocaleTimeString(dates(), { hour: "2-digit", minute: "2-digit" });
  return then.toLocaleDateString(dates(), { day: "numeric", month: "short", year: "numeric" });
}

/** Bytes of “90”, “90 kB”, “64 KiB”; a bare number is in the unit that is set. Null when it is none of these. */
export function parseLimit(text: string): number | null {
  const match = /^\s*(\d+(?:[.,]\d+)?)\s*(b|kb|mb|kib|mib)?\s*$/i.exec(text);
  if (!match) return null;
  const amount = Number(match[1]?.replace(",", "."));
  const factor = { b: 1, kb: 1_000, mb: 1_000_000, kib: 1_024, mib: 1_048_576 }[(match[2] ?? sizeUnit()).toLowerCase()];
  const bytes = Math.floor(amount * (factor ?? 1_000));
  return bytes >= 1 ? bytes : null;
}

/** Whole px of what was typed, or null. */
export function parsePx(text: string): number | null {
  const cleaned = text.replace(/[\s,]/g, "").replace(/px$/i, "");
  return /^\d{1,9}$/.test(cleaned) ? Number(cleaned) : null;
}

/** A display as it is written everywhere: CSS px, and its pixel scale when that is not 1. */
export function screenWords({ width_px, height_px, scale }: { width_px: number; height_px: number; scale: number }): string {
  return `${width_px}×${height_px}${scale > 1 ? ` at ${scale}` : ""}`;
}

/** A share of 1 as a percentage that is never told as nothing when it is something. */
export function percent(share: number): string {
  if (share > 0 && share < 0.01) return "<1 %";
  return `${Math.round(share * 100)} %`;
}

/** A day: “26/11/2026”. */
export function formatDay(iso: string): string {
  return new Date(iso).toLocaleDateString(dates());
}

/** A moment, whole: “26/11/2026, 06:00:00”. */
export function formatMoment(iso: string): string {
  return new Date(iso).toLocaleString(dates());
}

/** A time to come: “Thu 26 Nov, 06:00”. */
export function formatTime(iso: string): string {
  const then = new Date(iso);
  const day = then.toLocaleDateString(dates(), { weekday: "short", day: "numeric", month: "short" }).replace(",", "");
  return `${day}, ${then.toLocaleTimeString(dates(), { hour: "2-digit", minute: "2-digit" })}`;
}

/** “1 page”, “2 pages”. */
export function counted(count: number, one: string, many = `${one}s`): string {
  return `${count.toLocaleString("en-GB")} ${count === 1 ? one : many}`;
}
