/*
 * The pointer stays on an element while the page is scrolled beneath it: the page hears of no
 * departure. The element and what it lies in are marked, so that the browser can be told the same.
 */
(element) => {
  const mark = "data-pointer-held";
  const gone = ["mouseout", "mouseleave", "pointerout", "pointerleave", "mousemove", "pointermove", "scroll", "blur"];
  for (const type of gone) window.addEventListener(type, (event) => event.stopImmediatePropagation(), { capture: true });
  for (let outer = element; outer; outer = outer.parentElement) outer.setAttribute(mark, "");
  window.scrollTo({ top: 0, left: 0, behavior: "instant" });
  return mark;
}
