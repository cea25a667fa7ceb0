import { screen, waitFor } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";

import { useNotices } from "../../app/notices";
import { server } from "../../testing/setup";
import { show } from "../../testing/show";
import { useChosen } from "./chosen";
import { ChosenBar } from "./ChosenBar";

const said = () => useNotices.getState().take().at(-1);
const sent = () => server.askedOf("POST /api/captures/batch").map((row) => row.body);

beforeEach(() => {
  useChosen.getState().choose([3, 4]);
  server.on("POST /api/captures/batch", {}).on("GET /api/labels", [{ name: "Winter", count: 1 }]).on("GET /api/folders", [{ id: 9, name: "Fares", parent: null }]);
});

describe("what is done to captures that are chosen", () => {
  it("is nothing where none is", () => {
    useChosen.getState().clear();
    show(<ChosenBar found={[3, 4]} />);
    expect(screen.queryByRole("region")).toBeNull();
  });

  it("can be done to all that are found", async () => {
    const { person } = show(<ChosenBar found={[3, 4, 5]} />);
    await person.click(screen.getByRole("button", { name: "Choose all 3" }));
    expect([...useChosen.getState().ids]).toEqual([3, 4, 5]);
    expect(screen.queryByRole("button", { name: /Choose all/ })).toBeNull();
  });

  it("deletes them with a way back", async () => {
    const { person } = show(<ChosenBar found={[3, 4]} />);
    await person.click(screen.getByRole("button", { name: "Delete" }));
    await waitFor(() => expect(sent()).toMatchObject([{ ids: [3, 4], action: "delete" }]));
    expect(useChosen.getState().ids.size).toBe(0);
    const notice = await waitFor(() => said() ?? Promise.reject(new Error("nothing was said")));
    expect(notice.text).toBe("Deleted 2 captures.");
    notice.action?.run();
    await waitFor(() => expect(sent().at(-1)).toMatchObject({ ids: [3, 4], action: "restore" }));
  });

  it("labels them, and takes the label away", async () => {
    const { person } = show(<ChosenBar found={[3, 4]} />);
    await person.click(screen.getByRole("button", { name: "Label them" }));
    await person.type(await screen.findByLabelText("Label"), " Winter ");
    await person.click(screen.getByRole("button", { name: "Give it" }));
    await waitFor(() => expect(sent()).toEqual([{ ids: [3, 4], action: "label", label: "Winter" }]));
    await waitFor(() => expect(said()?.text).toBe("Labelled 2 captures “Winter”."));
  });

  it("moves them into a folder, or into none", async () => {
    const { person } = show(<ChosenBar found={[3, 4]} />);
    await person.click(screen.getByRole("button", { name: "Move them" }));
    await person.click(await screen.findByRole("button", { name: "Fares" }));
    await waitFor(() => expect(sent()).toMatchObject([{ ids: [3, 4], action: "move", folder: 9 }]));
    await person.click(screen.getByRole("button", { name: "Move them" }));
    await person.click(await screen.findByRole("button", { name: "Into no folder" }));
    await waitFor(() => expect(sent().at(-1)).toMatchObject({ ids: [3, 4], action: "move", folder: null }));
  });

  it("takes pages again, and says which could not be", async () => {
    server.on("POST /api/captures/retake", { ids: [11], left_out: 1 });
    const { person } = show(<ChosenBar found={[3, 4]} />);
    await person.click(screen.getByRole("button", { name: "Take again" }));
    await waitFor(() => expect(said()?.text).toBe("1 page under way, beside the earlier capture. 1 dropped picture left out."));
  });
});
