/*
 * The element at a place of the window as it can be taken, so many boxes further out, or the panel it lies
 * in that scrolls; and noted for whoever tries the ways to it.
 */
({ x, y, outer, panel }) => {
  const state = window[Symbol.for("capture")];
  let found = state.elementAt(x, y);
  while (panel && found && !scrolls(found)) found = state.parentOf(found);
  for (let left = outer; left > 0 && further(found); left -= 1) found = further(found);
  state.meant = found;
  return found ? state.described(found) : null;

  function scrolls(element) {
    return element.scrollHeight > element.clientHeight + 8 && /auto|scroll|overlay/.test(getComputedStyle(element).overflowY);
  }

  /** The next thing that an element lies in and that is larger. */
  function further(element) {
    const area = (one) => one.getBoundingClientRect().width * one.getBoundingClientRect().height;
    let one = element && state.parentOf(element);
    while (one && area(one) <= area(element)) one = state.parentOf(one);
    return one === document.documentElement ? null : one;
  }
}
