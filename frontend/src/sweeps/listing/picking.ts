import type { ListedPage } from "../../api/types";

/** Where a page belongs, as it is counted: host and section. */
export function placeOf(page: ListedPage): string {
  return page.host + page.section;
}

/** Whether words, or a pattern with stars, are in a page's address or title. */
export function matches(page: ListedPage, words: string): boolean {
  const wanted = words.trim().toLowerCase();
  if (!wanted) return true;
  const where = `${page.address}\n${page.title}`.toLowerCase();
  if (!wanted.includes("*")) return where.includes(wanted);
  const pattern = wanted.split("*").map((part) => part.replace(/[.+?^${}()|[\]\\]/g, "\\$&"));
  return new RegExp(pattern.join(".*")).test(where);
}

/** Whether a page says that it was changed on a day or later; without a day all do. */
export function isChangedSince(page: ListedPage, day: string): boolean {
  return day === "" || page.modified >= day;
}

/** The pages that stay, of which some were left out one by one or by their place. */
export interface Picking {
  leftOut: ReadonlySet<string>;
  placesOut: ReadonlySet<string>;
  respectRobots: boolean;
}

export function isPicked(page: ListedPage, picking: Picking): boolean {
  return (
    !picking.leftOut.has(page.address) &&
    !picking.placesOut.has(placeOf(page)) &&
    !(picking.respectRobots && page.forbidden)
  );
}

/** A set with a member in it that was not, or without one that was. */
export function toggled<Member>(set: ReadonlySet<Member>, member: Member): Set<Member> {
  const next = new Set(set);
  if (!next.delete(member)) next.add(member);
  return next;
}

/** “about 4 min”, “about 2 h”, from seconds. */
export function roughly(seconds: number): string {
  if (seconds < 50) return "under a minute";
  if (seconds < 5_400) return `about ${Math.round(seconds / 60)} min`;
  return `about ${(seconds / 3_600).toFixed(1)} h`;
}
