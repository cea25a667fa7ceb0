import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { server } from "../../testing/setup";
import { show } from "../../testing/show";
import { DeletedPage } from "./DeletedPage";

const row = (id: number) => ({ id, name: `Page ${id}`, host: "skerrin.example", picture_key: "", width_px: 1, height_px: 1, deleted_at: "2026-11-24T10:00:00Z" });
const answer = (ids: number[]) => ({ captures: ids.map(row), total: ids.length, bytes: 1_500_000, kept_days: 30 });

describe("what was deleted", () => {
  it("is put back", async () => {
    const ids = [3, 4];
    server.on("GET /api/captures/deleted", () => ({ body: answer(ids) }));
    server.on("POST /api/captures/4/restore", () => {
      ids.pop();
      return { body: {} };
    });
    const { person, container } = show(<DeletedPage />);
    await screen.findByText("Page 4");
    await person.click(within(container.querySelector<HTMLElement>("[data-deleted='4']") ?? container).getByRole("button", { name: "Put back" }));
    await waitFor(() => expect(server.askedOf("POST /api/captures/4/restore")).toHaveLength(1));
  });

  it("is cleared for good only after it was said what that means", async () => {
    server.on("GET /api/captures/deleted", answer([3, 4])).on("DELETE /api/captures/deleted", {});
    const { person } = show(<DeletedPage />);
    await person.click(await screen.findByRole("button", { name: "Clear all" }));
    await screen.findByText(/^2 captures and all that was made of them go for good, and 1.50 MB/);
    expect(server.asked.some((asked) => asked.method !== "GET")).toBe(false);
    await person.click(screen.getByRole("button", { name: "Clear all, for good" }));
    await waitFor(() => expect(server.asked.filter((asked) => asked.method !== "GET")).toHaveLength(1));
  });

  it("says for how long it would be kept where nothing is", async () => {
    server.on("GET /api/captures/deleted", answer([]));
    show(<DeletedPage />);
    await screen.findByText("Nothing is deleted. What you delete stays here for 30 days.");
  });
});
