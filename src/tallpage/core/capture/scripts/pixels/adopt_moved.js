/*
 * Finds the box that what was moved lies in, as long as it does not fill the window, and treats it
 * as what scrolls from now on. Its place in the window; null when the whole window was moved.
 */
() => {
  const state = window[Symbol.for("capture")];
  const moved = [...state.places.keys()].filter((node) => {
    const before = state.placesBefore.get(node);
    return before !== undefined && before !== state.places.get(node);
  });
  const boxes = new Map();
  for (const node of moved)
    for (let outer = state.parentOf(node); outer && outer !== document.body; outer = state.parentOf(outer))
      if (/hidden|clip/.test(getComputedStyle(outer).overflowY) && outer.clientHeight > window.innerHeight * 0.2) {
        boxes.set(outer, (boxes.get(outer) ?? 0) + 1);
        break;
      }
  const [holder] = [...boxes].sort(([, one], [, other]) => other - one)[0] ?? [];
  if (!holder) return null;
  const box = holder.getBoundingClientRect();
  if (box.height > window.innerHeight * 0.97 || box.top < 0 || box.bottom > window.innerHeight + 1) return null;
  state.scroller = holder;
  return {
    x_px: Math.round(box.left) + holder.clientLeft,
    y_px: Math.round(box.top) + holder.clientTop,
    width_px: holder.clientWidth,
    height_px: holder.clientHeight,
  };
}
