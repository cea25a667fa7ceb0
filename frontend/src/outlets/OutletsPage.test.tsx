import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import type { Outlet, Slot } from "../api/types";
import { server } from "../testing/setup";
import { show } from "../testing/show";
import { OutletsPage } from "./OutletsPage";

const slot = (id: number, name: string): Slot =>
  ({ id, name, way: "width", width_px: 720, height_px: null, percent: null, limit_bytes: 90_000, least_fidelity: null, formats: ["jpeg"], size_words: "720 px", last: [] }) as unknown as Slot;
const outlet = (id: number, name: string, slots: Slot[] = []) => ({ id, name, slots, facts: {}, upload: null }) as unknown as Outlet;

async function shown(...outlets: Outlet[]) {
  server.on("GET /api/outlets", outlets);
  const { person } = show(<OutletsPage />);
  await screen.findByText(outlets[0]?.name ?? "There are no outlets yet. Name the first place below.");
  return person;
}

describe("the outlets", () => {
  it("says what a slot lacks, and sends nothing until it is right", async () => {
    server.on("POST /api/outlets/3/slots", slot(9, "Front page"));
    const person = await shown(outlet(3, "Lighthouse letter"));
    await person.click(screen.getByRole("button", { name: "Add slot" }));
    const type = async (label: RegExp, text: string) => {
      const field = screen.getByLabelText(label);
      await person.clear(field);
      await person.type(field, text);
    };
    const saved = async (problem: string) => {
      await person.click(screen.getByRole("button", { name: "Save slot" }));
      expect(screen.getByRole("alert").textContent).toContain(problem);
    };
    await saved("Give the slot a name.");
    await type(/^Name$/, "Front page");
    await type(/^Width, px/, "wide");
    await saved("not a number");
    await type(/^Width, px/, "640");
    await type(/^Limit, kB/, "0");
    await saved("The limit is a size above 0");
    await type(/^Limit, kB/, "70");
    await type(/^Leaves overlap/, "much");
    await saved("The overlap is a number of px");
    await type(/^Leaves overlap/, "20");
    expect(server.askedOf("POST /api/outlets/3/slots")).toHaveLength(0);
    await person.click(screen.getByRole("button", { name: "Save slot" }));
    await waitFor(() => expect(server.askedOf("POST /api/outlets/3/slots")).toHaveLength(1));
    expect(server.askedOf("POST /api/outlets/3/slots")[0]?.body).toMatchObject({ name: "Front page", way: "width", width_px: 640, limit_bytes: 70_000, overlap_px: 20, formats: ["jpeg", "png", "webp"] });
  });

  it("deletes an outlet only once it has been asked about", async () => {
    server.on("DELETE /api/outlets/3", () => ({ status: 204 }));
    const person = await shown(outlet(3, "Lighthouse letter", [slot(1, "Front page")]));
    await person.click(screen.getByLabelText("Delete Lighthouse letter"));
    await person.click(screen.getByRole("button", { name: "Keep it" }));
    expect(server.askedOf("DELETE /api/outlets/3")).toHaveLength(0);
    await person.click(screen.getByLabelText("Delete Lighthouse letter"));
    await person.click(screen.getByRole("button", { name: "Delete outlet" }));
    await waitFor(() => expect(server.askedOf("DELETE /api/outlets/3")).toHaveLength(1));
  });

  it("moves an outlet and a slot by one place", async () => {
    server.on("PUT /api/outlets/order", {}).on("PUT /api/outlets/3/slots/order", {});
    const person = await shown(outlet(3, "Letter", [slot(5, "Wide"), slot(6, "Narrow")]), outlet(4, "Board"));
    await person.click(screen.getByLabelText("Move Board up"));
    await waitFor(() => expect(server.askedOf("PUT /api/outlets/order")[0]?.body).toEqual({ ids: [4, 3] }));
    await person.click(screen.getByLabelText("Move Wide down"));
    await waitFor(() => expect(server.askedOf("PUT /api/outlets/3/slots/order")[0]?.body).toEqual({ ids: [6, 5] }));
    expect(screen.getByLabelText<HTMLButtonElement>("Move Letter up").disabled).toBe(true);
  });

  it("copies a slot under another name, and leaves what was typed when it is changed and cancelled", async () => {
    server.on("POST /api/outlets/3/slots", slot(7, "Wide copy"));
    const person = await shown(outlet(3, "Letter", [slot(5, "Wide")]));
    await person.click(screen.getByLabelText("Copy Wide"));
    await waitFor(() => expect(server.askedOf("POST /api/outlets/3/slots")[0]?.body).toMatchObject({ name: "Wide copy", width_px: 720 }));
    await person.click(screen.getByLabelText("Change Wide"));
    const form = within(screen.getByRole("button", { name: "Save slot" }).closest("form") as HTMLElement);
    expect(form.getByLabelText<HTMLInputElement>(/^Width, px/).value).toBe("720");
    await person.click(form.getByRole("button", { name: "Cancel" }));
    expect(server.asked.filter((row) => row.method === "PUT")).toHaveLength(0);
  });

  it("keeps the name that was typed when the outlet could not be added", async () => {
    server.refuse("POST /api/outlets", 403, "With this account you can look.");
    const person = await shown(outlet(3, "Letter"));
    const field = screen.getByLabelText<HTMLInputElement>("Name of the new outlet");
    await person.type(field, "Lighthouse letter{Enter}");
    await waitFor(() => expect(server.askedOf("POST /api/outlets")).toHaveLength(1));
    expect(field.value).toBe("Lighthouse letter");
  });
});
