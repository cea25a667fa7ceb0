import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { useNotices } from "../../app/notices";
import { server } from "../../testing/setup";
import { showOnBench } from "../../testing/showOnBench";
import { CutsPanel } from "./CutsPanel";

async function opened(...cuts: string[]) {
  const { person } = showOnBench(<CutsPanel />, { cuts });
  await person.click(screen.getByRole("button", { name: "Cuts of this page" }));
  await screen.findByLabelText(`Name of ${cuts[0] ?? ""}`);
  return person;
}

describe("the cuts of a page", () => {
  it("are renamed, and not to nothing", async () => {
    server.on("PUT /api/cuts/2/name", { id: 2 });
    const person = await opened("Cut 1", "Fares");
    const name = screen.getByLabelText("Name of Fares");
    await person.clear(name);
    await person.tab();
    await person.type(name, "Winter fares");
    await person.tab();
    await waitFor(() => expect(server.asked.filter((row) => row.method === "PUT").map((row) => row.body)).toEqual([{ name: "Winter fares" }]));
  });

  it("are deleted with a way back, but for the last one", async () => {
    server.on("DELETE /api/cuts/2", () => ({ status: 204 })).on("POST /api/cuts/2/restore", { id: 2 });
    const person = await opened("Cut 1", "Fares");
    await person.click(screen.getByLabelText("Delete Fares"));
    await waitFor(() => expect(useNotices.getState().waiting.at(-1)?.text).toBe("Fares is deleted."));
    useNotices.getState().take().at(-1)?.action?.run();
    await waitFor(() => expect(server.askedOf("POST /api/cuts/2/restore")).toHaveLength(1));
  });

  it("keep at least one", async () => {
    await opened("Cut 1");
    expect(screen.getByLabelText<HTMLButtonElement>("Delete Cut 1").disabled).toBe(true);
  });
});
