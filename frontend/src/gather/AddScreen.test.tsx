import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";

import { server } from "../testing/setup";
import { show } from "../testing/show";
import { AddScreen } from "./AddScreen";
import { useScreenChoice } from "./screenChoice";

function shown() {
  const closed = vi.fn();
  const { person } = show(<AddScreen onClose={closed} />);
  const type = (label: string, text: string) => person.type(screen.getByLabelText(label), text);
  const add = () => person.click(screen.getByRole("button", { name: "Add screen" }));
  return { closed, type, add };
}

describe("a screen of one's own", () => {
  it("is chosen once it is added", async () => {
    server.on("POST /api/screens", ({ body }) => ({ body }));
    const { closed, type, add } = shown();
    await type("Name", "Kiosk");
    await type("Width, px", "1,080");
    await type("Height, px", "1920 px");
    await add();
    await waitFor(() => expect(closed).toHaveBeenCalledOnce());
    expect(server.askedOf("POST /api/screens")[0]?.body).toEqual({ name: "Kiosk", width_px: 1080, height_px: 1920, scale: 1, touch: false });
    expect(useScreenChoice.getState().chosen).toEqual(["desk", "Kiosk"]);
  });

  it("needs a name and numbers, and says what the server refuses", async () => {
    server.refuse("POST /api/screens", 422, "A screen of 9 × 9 px cannot be simulated.", "screen", "Give 200 to 4,000 px.");
    const { closed, type, add } = shown();
    const problem = () => screen.getByRole("alert").textContent;
    await add();
    expect(problem()).toBe("Give the screen a name.");
    await type("Name", "Kiosk");
    await type("Width, px", "wide");
    await add();
    expect(problem()).toBe("Width and height are numbers of px, like 1440 and 900.");
    expect(server.asked).toHaveLength(0);
    await type("Width, px", "{Backspace}{Backspace}{Backspace}{Backspace}9");
    await type("Height, px", "9");
    await add();
    await waitFor(() => expect(problem()).toBe("A screen of 9 × 9 px cannot be simulated. Give 200 to 4,000 px."));
    expect(closed).not.toHaveBeenCalled();
  });
});
