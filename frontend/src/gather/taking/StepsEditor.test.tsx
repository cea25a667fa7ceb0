import { screen } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";

import { show } from "../../testing/show";
import { StepsEditor } from "./StepsEditor";
import { useTakeChanges } from "./takeSettings";

const steps = () => useTakeChanges.getState().changes.steps ?? [];

beforeEach(() => useTakeChanges.getState().reset());

describe("the steps before a picture", () => {
  it("are put together, each with the fields that it needs", async () => {
    const { person } = show(<StepsEditor />);
    await person.click(screen.getByRole("button", { name: "Add a step" }));
    await person.type(screen.getByLabelText("On what, step 1"), "Dunmorra");
    expect(screen.queryByLabelText("What, step 1")).toBeNull();
    await person.click(screen.getByRole("button", { name: "Add a step" }));
    await person.selectOptions(screen.getByLabelText("What step 2 does"), "type");
    await person.type(screen.getByLabelText("On what, step 2"), "#q");
    await person.type(screen.getByLabelText("What, step 2"), "ferries");
    expect(steps()).toEqual([
      { kind: "click", target: "Dunmorra", text: "" },
      { kind: "type", target: "#q", text: "ferries" },
    ]);
  });

  it("lose what another kind does not have", async () => {
    useTakeChanges.getState().change({ steps: [{ kind: "type", target: "#q", text: "ferries" }] });
    const { person } = show(<StepsEditor />);
    await person.selectOptions(screen.getByLabelText("What step 1 does"), "pause");
    expect(screen.queryByLabelText("On what, step 1")).toBeNull();
    expect(steps()).toEqual([{ kind: "pause", target: "", text: "ferries" }]);
  });

  it("are moved and removed", async () => {
    const [first, second, third] = ["a", "b", "c"].map((target) => ({ kind: "click" as const, target, text: "" }));
    if (!first || !second || !third) throw new Error("three steps");
    useTakeChanges.getState().change({ steps: [first, second, third] });
    const { person } = show(<StepsEditor />);
    expect(screen.getByLabelText<HTMLButtonElement>("Move step 1 up").disabled).toBe(true);
    await person.click(screen.getByLabelText("Move step 3 up"));
    expect(steps()).toEqual([first, third, second]);
    await person.click(screen.getByLabelText("Remove step 1"));
    expect(steps()).toEqual([third, second]);
  });

  it("are twenty at most", () => {
    useTakeChanges.getState().change({ steps: Array.from({ length: 20 }, () => ({ kind: "click" as const, target: "a", text: "" })) });
    show(<StepsEditor />);
    expect(screen.queryByRole("button", { name: "Add a step" })).toBeNull();
  });
});
