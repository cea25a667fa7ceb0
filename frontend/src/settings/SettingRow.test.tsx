import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import type { Setting } from "../api/types";
import { server } from "../testing/setup";
import { show } from "../testing/show";
import { SettingRow } from "./SettingRow";

const base = { name: "show.units", group: "On screen", words: "Sizes of files", effect: "How they are written.", kind: "choice", value: "kB", usual: "kB", origin: "usual", shared: false, locked: "", variable: "", options: [{ value: "kB", words: "kB" }, { value: "KiB", words: "KiB" }], unit: "", least: null, most: null };
const setting = (more: object = {}) => ({ ...base, ...more }) as unknown as Setting;
const row = (shown: Setting, all: Setting[] = [shown]) => show(<SettingRow setting={shown} all={all} />);
const sent = () => server.askedOf("POST /api/settings").map((asked) => (asked.body as { values: object }).values);

describe("a setting", () => {
  it("counts at once, and says that it is saved", async () => {
    server.on("POST /api/settings", { settings: [] });
    const { person } = row(setting());
    await person.click(screen.getByLabelText("KiB"));
    await screen.findByText("Saved");
    expect(sent()).toEqual([{ "show.units": "KiB" }]);
  });

  it("says why it was refused", async () => {
    server.refuse("POST /api/settings", 422, "That is too many.", "setting", "Give at most 9.");
    const { person } = row(setting());
    await person.click(screen.getByLabelText("KiB"));
    expect((await screen.findByRole("alert")).textContent).toBe("That is too many. Give at most 9.");
    expect(screen.queryByText("Saved")).toBeNull();
  });

  it("goes back to the usual where it was set", async () => {
    server.on("POST /api/settings", { settings: [] });
    const { person } = row(setting({ value: "KiB", origin: "set" }));
    await person.click(screen.getByRole("button", { name: "As usual: kB (Sizes of files)" }));
    await waitFor(() => expect(sent()).toEqual([{ "show.units": null }]));
  });

  it("is only read where the environment says it", () => {
    row(setting({ locked: "TALLPAGE_UNITS says so.", origin: "environment" }));
    expect(screen.getByText("TALLPAGE_UNITS says so.")).toBeTruthy();
    expect(screen.queryByRole("radio")).toBeNull();
    expect(screen.queryByRole("button")).toBeNull();
  });

  it("keeps the last of several", async () => {
    server.on("POST /api/settings", { settings: [] });
    const options = [{ value: "jpeg", words: "" }, { value: "webp", words: "" }];
    const { person } = row(setting({ name: "files.formats", kind: "formats", options, value: ["jpeg"], usual: ["jpeg", "webp"] }));
    expect(screen.getByLabelText<HTMLInputElement>("JPEG").disabled).toBe(true);
    await person.click(screen.getByLabelText("WebP"));
    await waitFor(() => expect(sent()).toEqual([{ "files.formats": ["jpeg", "webp"] }]));
  });

  it("sends a number once it is typed, and not the one that stands there", async () => {
    server.on("POST /api/settings", { settings: [] });
    const { person } = row(setting({ name: "keep.days", words: "Days", kind: "number", value: 30, usual: 30, least: 1, most: 365, options: [] }));
    const field = screen.getByLabelText("Days");
    await person.type(field, "{Enter}");
    await person.clear(field);
    await person.type(field, "7{Enter}");
    await waitFor(() => expect(sent()).toEqual([{ "keep.days": 7 }]));
  });

  it("says where another one decides that it does nothing", () => {
    const after = setting({ name: "after.what", value: "bench" });
    row(setting({ name: "after.folder", kind: "text", value: "", usual: "", options: [] }), [after]);
    expect(screen.getByText("It does nothing now: nothing is saved.")).toBeTruthy();
  });
});
