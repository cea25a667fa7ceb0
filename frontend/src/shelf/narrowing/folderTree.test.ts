import { expect, it } from "vitest";

import { inOrder } from "./folderTree";

it("puts folders below the one that they lie in, by name", () => {
  const folder = (id: number, name: string, parent: number | null) => ({ id, name, parent, count: 0 });
  const rows = inOrder([folder(3, "Winter", 1), folder(2, "Crew", null), folder(1, "Fares", null), folder(4, "Adults", 3)]);
  expect(rows.map((row) => [row.folder.name, row.depth])).toEqual([
    ["Crew", 0],
    ["Fares", 0],
    ["Winter", 1],
    ["Adults", 2],
  ]);
});
