/*
 * How the page stands once it rests: how many words are seen, where it is scrolled to, what has the
 * focus; and with `scrolled` the block that would bring it there again, noted as what is meant.
 */
({ scrolled }) => {
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
    for (const share of [0.98, 0.9, 0.8, 0.7, 0.5, 0.3]) {
      const found = state.elementAt(window.innerWidth / 2, window.innerHeight * share);
      for (let one = found; one && one !== document.body; one = state.parentOf(one)) {
        const box = one.getBoundingClientRect();
        const fixed = /fixed|sticky/.test(getComputedStyle(one).position);
        if (fixed) break;
        if (box.top >= 0 && box.bottom <= window.innerHeight && box.height > 4) return one;
      }
    }
    return null;
  }
}
