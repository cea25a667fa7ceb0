/*
 * The pointer stays where it is while the page is scrolled beneath it: the page hears of no departure.
 * The element and what it lies in are marked, so that the browser can be told the same.
 */
({ x, y }) => {
  const state = window[Symbol.for("capture")];
  const mark = "data-pointer-held";
  const gone = ["mouseout", "mouseleave", "pointerout", "pointerleave", "mousemove", "pointermove", "blur"];
  const swallow = (event) => event.stopImmediatePropagation();
  for (const type of gone) window.addEventListener(type, swallow, { capture: true });
  const held = [];
  for (let outer = state.elementAt(x, y); outer; outer = state.parentOf(outer)) {
    outer.setAttribute(mark, "");
    held.push(outer);
  }
  state.letGo = () => {
    for (const type of gone) window.removeEventListener(type, swallow, { capture: true });
    for (const outer of held) outer.removeAttribute(mark);
  };
  return mark;
}
