import { expect, it } from "vitest";

import { helpFor } from "./missingHelp";

it("takes a panel that scrolls by itself in its whole length", () => {
  expect(helpFor({ why: "panel", target: "#board" })?.change).toEqual({ extent: "panel", element: "#board" });
});

it("takes a frame by its own address, if it has one that can be opened", () => {
  expect(helpFor({ why: "frame", target: "https://skerrin.example/embed" })?.address).toBe("https://skerrin.example/embed");
  expect(helpFor({ why: "frame", target: "about:srcdoc" })).toBeNull();
});

it("offers nothing where no press would help", () => {
  expect(helpFor({ why: "panel", target: "" })).toBeNull();
  expect(helpFor({ why: "blank", target: "" })).toBeNull();
});
