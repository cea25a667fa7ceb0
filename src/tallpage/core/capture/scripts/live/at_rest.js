/*
 * How the page stands once it rests: how many words are seen, where it is scrolled to, what has the
 * focus; and with `scrolled` the block that would bring it there again, noted as what is meant.
 */
({ scrolled }) => {
  const EDGE_PX = 4;
  const STEP_PX = 16;
  const state = window[Symbol.for("capture")];
  const focused = state.focused();
  const lowest = scrolled ? lowestBlock() : null;
  state.meant = lowest;
  return {
    words: state.wordsSeen(),
    xPx: window.scrollX,
    yPx: window.scrollY,
    focused: focused ? state.described(focused) : null,
    scrolledTo: lowest ? state.described(lowest) : null,
  };

  /** What stands lowest in the window and is all there: to bring it into view scrolls as far. */
  function lowestBlock() {
    for (let y = window.innerHeight - EDGE_PX; y > 0; y -= STEP_PX)
      for (const share of [0.5, 0.3, 0.7, 0.1, 0.9]) {
        const found = wholeAt(window.innerWidth * share, y);
        if (found) return found;
      }
    return null;
  }
  function wholeAt(x, y) {
    for (let one = state.elementAt(x, y); one && one !== document.body; one = state.parentOf(one)) {
      if (/fixed|sticky/.test(getComputedStyle(one).position)) return null;
      const box = one.getBoundingClientRect();
      if (box.top >= 0 && box.bottom <= window.innerHeight && box.height > EDGE_PX) return one;
    }
    return null;
  }
}
