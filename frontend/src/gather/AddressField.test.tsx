import { screen, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";

import { server } from "../testing/setup";
import { show } from "../testing/show";
import { AddressField } from "./AddressField";

const DESK = { name: "desk", width_px: 1280, height_px: 800, scale: 1, touch: false };
const field = () => screen.getByLabelText<HTMLTextAreaElement>("Address of the page, or several");

describe("the address field", () => {
  it("takes a page on the screens that are chosen, and is free at once", async () => {
    server.on("GET /api/screens", [DESK]).on("POST /api/captures", { id: 7 });
    const { person } = show(<AddressField />);
    await person.type(field(), "skerrin.example/timetable{Enter}");
    expect(field().value).toBe("");
    await waitFor(() => {
      expect(server.askedOf("POST /api/captures").map((row) => (row.body as { address: string }).address)).toEqual(["skerrin.example/timetable"]);
    });
  });

  it("keeps what was refused, with the reason", async () => {
    server.on("GET /api/screens", [DESK]).refuse("POST /api/captures", 422, "“file:” addresses are never opened.");
    const { person } = show(<AddressField />);
    await person.type(field(), "file:///etc/passwd{Enter}");
    await screen.findByText("“file:” addresses are never opened.");
    expect(field().value).toBe("file:///etc/passwd");
  });
});
