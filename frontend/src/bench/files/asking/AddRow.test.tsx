import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";

import { server } from "../../../testing/setup";
import { showOnBench } from "../../../testing/showOnBench";
import { AddRow } from "./AddRow";

const SLOT = { id: 5, name: "Thumb", size_words: "240 px", limit_bytes: 20_000, least_fidelity: null };
const added = () => server.askedOf("POST /api/cuts/1/outputs").map((row) => row.body);

function shown(flush = () => Promise.resolve()) {
  server.on("GET /api/outlets", [{ id: 3, name: "Gazette", slots: [SLOT, { ...SLOT, id: 6, name: "Wide" }] }]).on("POST /api/cuts/1/outputs", { id: 9 });
  const onAdded = vi.fn();
  return { onAdded, ...showOnBench(<AddRow onAdded={onAdded} />, { saver: { flush } }) };
}

describe("adding a file", () => {
  it("waits until the cut that it is made of is saved", async () => {
    let saved: () => void = () => undefined;
    const { onAdded, person } = shown(() => new Promise((resolve) => (saved = resolve)));
    await person.selectOptions(screen.getByLabelText("Add a slot"), await screen.findByRole("option", { name: /^Thumb/ }));
    await person.click(screen.getByRole("button", { name: "Add" }));
    expect(added()).toEqual([]);
    saved();
    await waitFor(() => expect(onAdded).toHaveBeenCalledWith(9));
    expect(added()).toEqual([{ slot_id: 5 }]);
  });

  it("is not done when the cut cannot be saved, and says why", async () => {
    const { person } = shown(() => Promise.reject(new Error("away")));
    await person.selectOptions(screen.getByLabelText("Add a slot"), await screen.findByRole("option", { name: /^Thumb/ }));
    await person.click(screen.getByRole("button", { name: "Add" }));
    await screen.findByRole("alert");
    expect(added()).toEqual([]);
  });

  it("adds all slots of an outlet in their order", async () => {
    const { onAdded, person } = shown();
    await person.selectOptions(screen.getByLabelText("Add a slot"), await screen.findByRole("option", { name: "All 2 slots" }));
    await person.click(screen.getByRole("button", { name: "Add" }));
    await waitFor(() => expect(onAdded).toHaveBeenCalledTimes(2));
    expect(added()).toEqual([{ slot_id: 5 }, { slot_id: 6 }]);
  });

  it.each([
    ["0", "9", "A width of 0 px"],
    ["x", "9", "not a number"],
    ["700", "0", "The limit is a size above 0"],
    ["700", "", "The limit is a size above 0"],
  ])("refuses rules of %s px under %s kB in words", async (width, limit, sentence) => {
    server.refuse("POST /api/cuts/1/outputs", 422, `A width of ${width} px cannot be made.`);
    const { person } = shown();
    server.refuse("POST /api/cuts/1/outputs", 422, `A width of ${width} px cannot be made.`);
    await person.type(screen.getByLabelText("Width, px"), width);
    if (limit) await person.type(screen.getByLabelText(/^Limit/), limit);
    await person.click(screen.getByRole("button", { name: "Fit" }));
    expect((await screen.findByRole("alert")).textContent).toContain(sentence);
  });

  it("sends rules of one's own", async () => {
    const { onAdded, person } = shown();
    await person.type(screen.getByLabelText("Width, px"), "700");
    await person.type(screen.getByLabelText(/^Limit/), "64 KiB");
    await person.click(screen.getByRole("button", { name: "Fit" }));
    await waitFor(() => expect(onAdded).toHaveBeenCalledOnce());
    expect(added()[0]).toMatchObject({ rules: { way: "width", width_px: 700, limit_bytes: 65_536, formats: ["jpeg", "png", "webp"] } });
  });
});
