import { expect, test } from "vitest";

import { asTypedWanted, readWanted, wantedWords } from "./wanted";

test("what is wanted reads as it was typed", () => {
  for (const wanted of [
    { limit_bytes: 90_000, least_fidelity: null },
    { limit_bytes: null, least_fidelity: 75 },
    { limit_bytes: 120_000, least_fidelity: 83 },
  ])
    expect(readWanted(asTypedWanted(wanted))).toEqual(wanted);
});

test("a limit is needed where nothing else is asked for, and may be left out where something is", () => {
  expect(readWanted({ aim: "limit", fidelity: "", limit: "" })).toHaveProperty("problem");
  expect(readWanted({ aim: "88", fidelity: "", limit: "" })).toEqual({ limit_bytes: null, least_fidelity: 88 });
  expect(readWanted({ aim: "88", fidelity: "", limit: "much" })).toHaveProperty("problem");
});

test.each(["", "49", "101", "good", "8.5"])("%j is no fidelity", (fidelity) => {
  expect(readWanted({ aim: "number", fidelity, limit: "" })).toHaveProperty("problem");
});

test("what is wanted in words", () => {
  expect(wantedWords({ limit_bytes: 90_000, least_fidelity: null })).toBe("90.0 kB");
  expect(wantedWords({ limit_bytes: null, least_fidelity: 85 })).toBe("lightest at fidelity 85");
  expect(wantedWords({ limit_bytes: 90_000, least_fidelity: 85 })).toBe("lightest at fidelity 85, 90.0 kB");
});
