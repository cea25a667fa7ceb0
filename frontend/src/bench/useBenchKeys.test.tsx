import { fireEvent } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";

import { showOnBench } from "../testing/showOnBench";
import { useBench } from "./benchContext";
import { setField } from "./cut/frameSteps";
import { useBenchKeys } from "./useBenchKeys";

function shown() {
  const heard = { onZoom: vi.fn(), onStep: vi.fn(), onNewCut: vi.fn() };
  function Keys() {
    useBenchKeys(useBench().store, heard);
    return <input aria-label="A field" />;
  }
  const { store, person } = showOnBench(<Keys />);
  const frame = () => store.getState().document.frame;
  return { heard, store, person, frame };
}

describe("the keys of the Bench", () => {
  it("start one cut, however long the key is held", () => {
    const { heard } = shown();
    const n = { key: "n", code: "KeyN" };
    fireEvent.keyDown(document.body, n);
    for (let press = 0; press < 5; press += 1) fireEvent.keyDown(document.body, { ...n, repeat: true });
    expect(heard.onNewCut).toHaveBeenCalledOnce();
  });

  it("move a frame by one px, ten with Shift, and not one around everything", async () => {
    const { store, person, frame } = shown();
    await person.keyboard("{ArrowDown}");
    expect(frame().y_px).toBe(0);
    setField(store, "height_px", 500);
    setField(store, "width_px", 300);
    await person.keyboard("{ArrowDown}{ArrowRight}{Shift>}{ArrowDown}{/Shift}");
    expect(frame()).toMatchObject({ x_px: 1, y_px: 11, width_px: 300, height_px: 500 });
    await person.keyboard("{Alt>}{ArrowRight}{/Alt}");
    expect(frame()).toMatchObject({ x_px: 1, width_px: 301 });
  });

  it("undo and redo", async () => {
    const { store, person, frame } = shown();
    setField(store, "height_px", 700);
    await person.keyboard("{Control>}z{/Control}");
    expect(frame().height_px).toBe(1_500);
    await person.keyboard("{Control>}y{/Control}");
    expect(frame().height_px).toBe(700);
  });

  it("look closer and farther", async () => {
    const { heard, person } = shown();
    await person.keyboard("12");
    expect(heard.onZoom.mock.calls).toEqual([[1], [2]]);
  });

  it("take up the tool that folds, and lay it aside", async () => {
    const { store, person } = shown();
    await person.keyboard("f");
    expect(store.getState().tool).toEqual({ kind: "fold", axis: "across" });
    await person.keyboard("{Escape}");
    expect(store.getState().tool).toEqual({ kind: "frame" });
  });

  it("rest while somebody types in a field", async () => {
    const { heard, store, person } = shown();
    const field = document.querySelector("input");
    if (field) await person.type(field, "nf1");
    expect(heard.onNewCut).not.toHaveBeenCalled();
    expect(store.getState().tool).toEqual({ kind: "frame" });
  });
});
