/*
 * The pointer stays on an element, or on what is at a place of the window, while the page is scrolled
 * beneath it: the page hears of no departure, and once it is back at its top of no scrolling. The element
 * and what it lies in are marked, so that the browser can be told the same. `letGo` ends that.
 */
({ element, place }) => {
  const state = window[Symbol.for("capture")];
  const mark = "data-pointer-held";
  const gone = ["mouseout", "mouseleave", "pointerout", "pointerleave", "mousemove", "pointermove", "blur"];
  if (element) gone.push("scroll");
  const swallow = (event) => event.stopImmediatePropagation();
  for (const type of gone) window.addEventListener(type, swallow, { capture: true });
  const held = [];
  for (let outer = element ?? state.elementAt(place.x, place.y); outer; outer = state.parentOf(outer)) {
    outer.setAttribute(mark, "");
    held.push(outer);
  }
  state.letGo = () => {
    for (const type of gone) window.removeEventListener(type, swallow, { capture: true });
    for (const outer of held) outer.removeAttribute(mark);
  };
  if (element) window.scrollTo({ top: 0, left: 0, behavior: "instant" });
  return mark;
}
