import { screen } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";

import { Problem } from "../api/client";
import type { Cut } from "../api/types";
import { server } from "../testing/setup";
import { showOnBench } from "../testing/showOnBench";
import { BenchHeader } from "./BenchHeader";

const header = <BenchHeader onNewCut={() => undefined} />;

describe("what the header says of saving", () => {
  it("offers both ways where another window changed the same", async () => {
    server.on("GET /api/routines", []);
    const resolve = vi.fn();
    const theirs = { changed_by: "Isa" } as Cut;
    const { person } = showOnBench(header, { saveState: { kind: "conflict", theirs }, saver: { resolve } });
    expect(screen.getByRole("alert").textContent).toContain("Isa changed the same part of this cut.");
    await person.click(screen.getByRole("button", { name: "Keep this one" }));
    await person.click(screen.getByRole("button", { name: "Take the other" }));
    expect(resolve.mock.calls).toEqual([["mine"], ["theirs"]]);
  });

  it("says whether a save that failed is tried again, and saves when asked", async () => {
    const flush = vi.fn(() => Promise.resolve());
    const problem = new Problem(0, "offline", "Tall Page does not answer.", "Check that it is still running.");
    const { person } = showOnBench(header, { saveState: { kind: "failed", problem, again: true }, saver: { flush } });
    expect(screen.getByRole("alert").textContent).toContain("Not saved yet: Tall Page does not answer. It is kept here and tried again.");
    await person.click(screen.getByRole("button", { name: "Save now" }));
    expect(flush).toHaveBeenCalledOnce();
  });

  it("says what to do about one that is refused for good", () => {
    const problem = new Problem(422, "frame", "The frame does not lie on the page.", "Draw it anew.");
    showOnBench(header, { saveState: { kind: "failed", problem, again: false } });
    expect(screen.getByRole("alert").textContent).toContain("Not saved: The frame does not lie on the page. Draw it anew.");
  });
});
