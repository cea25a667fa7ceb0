import { describe, expect, it } from "vitest";

import { cronOf, FIRST_TIMES, timesOf } from "./times";

describe("times at which a sweep is taken again", () => {
  it("become cron lines", () => {
    expect(cronOf({ ...FIRST_TIMES, at: "06:30" })).toBe("30 6 * * *");
    expect(cronOf({ ...FIRST_TIMES, way: "week", at: "18:05", weekday: 5 })).toBe("5 18 * * 5");
    expect(cronOf({ ...FIRST_TIMES, way: "cron", cron: " */10 * * * * " })).toBe("*/10 * * * *");
  });

  it("are the same after they were a cron line", () => {
    for (const line of ["30 6 * * *", "5 18 * * 5", "0 0 * * 0", "*/10 * * * *", "0 6 1 * 1"]) expect(cronOf(timesOf(line))).toBe(line);
  });
});
