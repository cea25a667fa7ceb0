import { expect, test } from "vitest";

import { offered } from "./draggedOut";

test.each([
  ["page-720x405.jpg", "image/jpeg"],
  ["page-720x405.avif", "image/avif"],
  ["page-720x9000.zip", "application/zip"],
])("%s is dragged out as %s", (file_name, media) => {
  const { download, address } = offered({ id: 7, file_key: "abc", file_name }, "http://127.0.0.1:8600");
  expect(address).toBe("http://127.0.0.1:8600/api/outputs/7/file?key=abc");
  expect(download).toBe(`${media}:${file_name}:${address}`);
});
