import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { server } from "../testing/setup";
import { show } from "../testing/show";
import { App } from "./App";
import { useNotices } from "./notices";

const place = () => screen.getByLabelText("Place").textContent;

function shown(at: string) {
  server.on("GET /api/screens", []).on("GET /api/captures", { captures: [], total: 0 }).on("GET /api/outlets", []).on("GET /api/me", {}).on("GET /api/routines", []);
  return show(<App />, { at });
}

describe("the keys of every screen", () => {
  it("lead to screens, but not while somebody types", async () => {
    const { person } = shown("/outlets");
    await screen.findByText("There are no outlets yet. Name the first place below.");
    await person.type(screen.getByLabelText("Name of the new outlet"), "gsr?");
    expect(place()).toBe("/outlets");
    expect(screen.queryByRole("dialog")).toBeNull();
    screen.getByLabelText<HTMLInputElement>("Name of the new outlet").blur();
    await person.keyboard("g");
    expect(place()).toBe("/");
  });

  it("are shown by the question mark, and put away by Escape", async () => {
    const { person } = shown("/nonsense");
    await screen.findByText("There is no such screen");
    await person.keyboard("?");
    expect((await screen.findByRole("dialog", { name: "Keys" })).textContent).toContain("fit the width");
    await person.keyboard("{Escape}");
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    expect(place()).toBe("/nonsense");
  });
});

describe("what is said at the lower edge", () => {
  it("can be undone, and is gone then", async () => {
    const { person } = shown("/nonsense");
    let undone = 0;
    useNotices.getState().show({ tone: "info", text: "Deleted “Timetable”.", action: { label: "Undo", run: () => (undone += 1) } });
    await person.click(await screen.findByRole("button", { name: "Undo" }));
    expect(undone).toBe(1);
    await waitFor(() => expect(screen.queryByText("Deleted “Timetable”.")).toBeNull());
  });
});
