import { expect, test, vi } from "vitest";

import type { DrawnMark, Mark } from "../../../api/types";
import { movedMark } from "../handling/geometry";
import { type Asked, MarkDrawer } from "./markDrawer";

const look = (words: string): DrawnMark => ({ parts: [{ path: words } as DrawnMark["parts"][number]], opacity: 1, blend: "over", blur_px: 0, extent: null, held: null, missing: [] });
const badge = (id: string): Mark => ({ kind: "badge", id, x_px: 5, y_px: 5 });
const box = (id: string, width_px = 10): Mark => ({ kind: "box", id, x_px: 0, y_px: 0, width_px, height_px: 10 });
const dim = (id: string): Mark => ({ kind: "dim", id, x_px: 0, y_px: 0, width_px: 10, height_px: 10 });

/** A drawer, and everything that it asked for: the server's part is to say what was asked. */
function drawing() {
  const asked: Asked[] = [];
  const fetch = vi.fn((wanted: Asked) => {
    asked.push(wanted);
    const dims = wanted.marks.filter((mark) => mark.kind === "dim");
    return Promise.resolve(wanted.marks.filter((mark) => mark.kind !== "dim" || mark === dims[0]).map((mark) => look(mark.id)));
  });
  return { drawer: new MarkDrawer(fetch), asked };
}

const settled = () => new Promise((resolve) => setTimeout(resolve, 0));
const seen = (drawer: MarkDrawer, marks: Mark[]) => drawer.show(marks, {}).map((row) => row.drawn?.parts[0]?.path);

test("what is not known is asked for once, and shown when it is there", async () => {
  const { drawer, asked } = drawing();
  const heard = vi.fn();
  drawer.subscribe(heard);
  const marks = [box("one"), badge("two")];
  expect(seen(drawer, marks)).toEqual([undefined, undefined]);
  seen(drawer, marks);
  await settled();
  expect(heard).toHaveBeenCalledTimes(1);
  expect(seen(drawer, marks)).toEqual(["one", "two"]);
  await settled();
  expect(asked.map((row) => row.marks.length)).toEqual([2]);
  expect(asked[0]?.labels).toEqual({ 1: "1" });
});

test("a mark that was only moved is shown moved, without asking", async () => {
  const { drawer, asked } = drawing();
  seen(drawer, [box("one")]);
  await settled();
  const [row] = drawer.show([movedMark(box("one"), 30, 4)], {});
  expect([row?.drawn?.parts[0]?.path, row?.by]).toEqual(["one", { x_px: 30, y_px: 4 }]);
  await settled();
  expect(asked).toHaveLength(1);
});

test("only what changed is asked for; meanwhile it is shown as it was", async () => {
  const { drawer, asked } = drawing();
  seen(drawer, [box("one"), box("two")]);
  await settled();
  expect(seen(drawer, [box("one", 99), box("two")])).toEqual(["one", "two"]);
  await settled();
  expect(asked[1]?.marks.map((mark) => mark.id)).toEqual(["one"]);
});

test("a badge whose number changed is asked for again", async () => {
  const { drawer, asked } = drawing();
  seen(drawer, [badge("one"), badge("two")]);
  await settled();
  seen(drawer, [badge("two")]);
  await settled();
  expect(asked[1]).toMatchObject({ labels: { 0: "1" } });
});

test("all that is dimmed is asked for together and is one picture", async () => {
  const { drawer, asked } = drawing();
  seen(drawer, [dim("one"), box("two")]);
  await settled();
  seen(drawer, [dim("one"), box("two"), dim("three")]);
  await settled();
  expect(asked[1]?.marks.map((mark) => mark.id)).toEqual(["one", "three"]);
  expect(seen(drawer, [dim("one"), box("two"), dim("three")])).toEqual(["one", "two", undefined]);
});

test("a server that does not answer leaves things as they were", async () => {
  const drawer = new MarkDrawer(() => Promise.reject(new Error("gone")));
  expect(seen(drawer, [box("one")])).toEqual([undefined]);
  await settled();
  expect(seen(drawer, [box("one")])).toEqual([undefined]);
});
