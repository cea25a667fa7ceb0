/*
 * The page's size, and the box of one element or of the stretch between two, in CSS px from the page's
 * top left corner. ``leftPx``: by how much the page goes on to the left of what is shown first, as one
 * that is read from right to left does.
 */
({ element, toElement }) => {
  const state = window[Symbol.for("capture")];
  const root = document.scrollingElement || document.documentElement;
  const widthPx = document.documentElement.clientWidth || window.innerWidth;
  const fromRight = getComputedStyle(root).direction === "rtl";
  const clips = [document.documentElement, document.body || root].map((outer) => getComputedStyle(outer).overflowX);
  const page = {
    widthPx,
    scrollWidthPx: Math.max(root.scrollWidth, widthPx),
    leftPx: fromRight ? Math.max(0, root.scrollWidth - widthPx) : 0,
    clipped: clips.some((overflow) => overflow === "hidden" || overflow === "clip"),
    heightPx: Math.max(state.layerBottomPx ?? root.scrollHeight, window.innerHeight),
    walkedHeightPx: (state.scroller || root).scrollHeight,
    title: document.title,
    box: null,
    rowsTakenOut: Math.max(state.removed, state.rowsGone?.() ?? 0),
    scroller: null,
  };
  if (state.scroller) {
    const box = state.scroller.getBoundingClientRect();
    const top = Math.round(box.top + window.scrollY + state.scroller.clientTop);
    const left = Math.round(box.left + window.scrollX + state.scroller.clientLeft);
    page.scroller = { x_px: left, y_px: top, width_px: state.scroller.clientWidth, height_px: state.scroller.clientHeight };
  }
  if (!element) return page;
  const boxes = [element, toElement ?? element].map((one) => one.getBoundingClientRect());
  const left = Math.max(0, Math.floor(Math.min(...boxes.map((box) => box.left)) + window.scrollX));
  const top = Math.max(0, Math.floor(Math.min(...boxes.map((box) => box.top)) + window.scrollY));
  page.box = {
    x_px: left,
    y_px: top,
    width_px: Math.ceil(Math.max(...boxes.map((box) => box.right)) + window.scrollX) - left,
    height_px: Math.ceil(Math.max(...boxes.map((box) => box.bottom)) + window.scrollY) - top,
  };
  return page;
}
