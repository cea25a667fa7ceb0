import { screen } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { showOnBench } from "../testing/showOnBench";
import { FrameFields } from "./FrameFields";

const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name);

function shown() {
  const { store, person } = showOnBench(<FrameFields />);
  const frame = () => store.getState().document.frame;
  const type = async (name: string, text: string) => {
    await person.clear(field(name));
    await person.type(field(name), text);
  };
  return { frame, person, type };
}

describe("the frame's numbers", () => {
  it("are the frame's, whichever order they are typed in", async () => {
    const { frame, type } = shown();
    await type("Width in px", "300{Enter}");
    await type("Height in px", "201{Enter}");
    await type("Left edge in px", "101{Enter}");
    await type("Upper edge in px", "130{Enter}");
    expect(frame()).toMatchObject({ x_px: 101, y_px: 130, width_px: 300, height_px: 201 });
  });

  it("refuse what is impossible, and say what is possible", async () => {
    const { frame, type } = shown();
    await type("Width in px", "601{Enter}");
    expect(screen.getByRole("alert").textContent).toBe("Width: 1 to 600 px is possible here.");
    await type("Height in px", "0{Enter}");
    expect(screen.getByRole("alert").textContent).toBe("Height: 1 to 1,500 px is possible here.");
    expect(frame()).toMatchObject({ width_px: 600, height_px: 1_500 });
    await type("Height in px", "1{Enter}");
    expect(screen.queryByRole("alert")).toBeNull();
    expect(frame().height_px).toBe(1);
  });

  it("are not emptied", async () => {
    const { frame, type } = shown();
    await type("Height in px", "{Enter}");
    expect(screen.getByRole("alert").textContent).toBe("Height: 1 to 1,500 px is possible here.");
    expect(frame().height_px).toBe(1_500);
  });

  it("forget with Escape what was typed", async () => {
    const { frame, person, type } = shown();
    await type("Width in px", "10000000");
    await person.keyboard("{Escape}");
    expect(screen.queryByRole("alert")).toBeNull();
    expect(frame().width_px).toBe(600);
  });
});
