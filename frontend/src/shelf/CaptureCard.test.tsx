import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import type { Capture } from "../api/types";
import { useNotices } from "../app/notices";
import { server } from "../testing/setup";
import { show } from "../testing/show";
import { CaptureCard } from "./CaptureCard";

const job = (state: string, more: object = {}) => ({ id: 1, state, stage: "", done: 0, expected: 0, error: null, ...more });
const capture = (more: object = {}) =>
  ({ id: 7, source: "page", name: "Timetable", host: "skerrin.example", picture_key: "", warnings: [], left_out: [], whole: true, passage: "", job: job("done"), width_px: 600, height_px: 900, created_at: "2026-11-24T10:00:00Z", ...more }) as unknown as Capture;

describe("a capture's card", () => {
  it("says why a page was not taken, and takes it again", async () => {
    const error = { code: "page_refused", sentence: "127.0.0.1 refused the connection.", hint: "Check the address." };
    server.on("POST /api/captures/7/again", { id: 8 });
    const { person } = show(<CaptureCard capture={capture({ job: job("failed", { error }) })} />);
    expect(screen.getByRole("alert").textContent).toContain("127.0.0.1 refused the connection.Check the address.");
    await person.click(screen.getByRole("button", { name: "Take again" }));
    await waitFor(() => expect(server.askedOf("POST /api/captures/7/again")).toHaveLength(1));
  });

  it("offers no such thing for a picture that was dropped", () => {
    show(<CaptureCard capture={capture({ source: "picture", job: job("failed") })} />);
    expect(screen.queryByRole("button", { name: "Take again" })).toBeNull();
  });

  it("is renamed by Enter, left as it is by Escape or an empty name", async () => {
    server.on("PATCH /api/captures/7", capture());
    const { person } = show(<CaptureCard capture={capture()} />);
    const typed = async (text: string) => {
      await person.click(screen.getByLabelText("Rename Timetable"));
      await person.clear(screen.getByLabelText("Name"));
      await person.type(screen.getByLabelText("Name"), text);
    };
    await typed("Other{Escape}");
    await typed("  {Enter}");
    expect(server.asked).toHaveLength(0);
    await typed(" Sailings {Enter}");
    await waitFor(() => expect(server.askedOf("PATCH /api/captures/7").map((row) => row.body)).toEqual([{ name: "Sailings" }]));
  });

  it("says that it could not be renamed", async () => {
    server.refuse("PATCH /api/captures/7", 403, "With this account you can look.");
    const { person } = show(<CaptureCard capture={capture()} />);
    await person.click(screen.getByLabelText("Rename Timetable"));
    await person.type(screen.getByLabelText("Name"), " anew{Enter}");
    await waitFor(() => expect(useNotices.getState().take().at(-1)?.text).toBe("With this account you can look."));
  });

  it("is deleted with a way back", async () => {
    server.on("DELETE /api/captures/7", () => ({ status: 204 })).on("POST /api/captures/7/restore", capture());
    const { person } = show(<CaptureCard capture={capture()} />);
    await person.click(screen.getByLabelText("Delete Timetable"));
    await waitFor(() => expect(useNotices.getState().waiting).toHaveLength(1));
    const [notice] = useNotices.getState().take();
    expect(notice?.text).toBe("Deleted “Timetable”.");
    notice?.action?.run();
    await waitFor(() => expect(server.askedOf("POST /api/captures/7/restore")).toHaveLength(1));
  });

  it("leads to what is missing of a page that is not whole", () => {
    show(<CaptureCard capture={capture({ whole: false, left_out: ["Notice", "Chat"], warnings: ["Not whole: …"] })} />);
    expect(screen.getByRole("link", { name: "Not whole" }).getAttribute("href")).toBe("/captures/7?report");
    expect(screen.getByRole("link", { name: "2 left out" })).toBeTruthy();
  });
});
