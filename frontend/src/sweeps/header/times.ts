/** When a sweep is taken again, as a person chooses it. */
export interface Times {
  way: "day" | "week" | "cron";
  /** Like 06:00. */
  at: string;
  /** 0 is Sunday, as in cron. */
  weekday: number;
  cron: string;
}

export const WEEKDAYS = ["Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"];
export const FIRST_TIMES: Times = { way: "day", at: "06:00", weekday: 1, cron: "0 6 * * 1-5" };

/** The choice as a cron line. */
export function cronOf({ way, at, weekday, cron }: Times): string {
  if (way === "cron") return cron.trim();
  const [hour, minute] = at.split(":").map(Number);
  return `${minute ?? 0} ${hour ?? 0} * * ${way === "week" ? weekday : "*"}`;
}

/** A cron line as a choice; what is neither daily nor weekly stays a line. */
export function timesOf(cron: string): Times {
  const found = /^(\d+) (\d+) \* \* (\*|[0-6])$/.exec(cron);
  if (!found) return { ...FIRST_TIMES, way: "cron", cron };
  const at = `${(found[2] ?? "").padStart(2, "0")}:${(found[1] ?? "").padStart(2, "0")}`;
  if (found[3] === "*") return { ...FIRST_TIMES, at, cron };
  return { way: "week", at, weekday: Number(found[3]), cron };
}
