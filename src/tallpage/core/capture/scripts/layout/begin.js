/*
 * Makes ready for the walk of the page: what waits to be near is fetched at once, movement takes no
 * time, sections that are skipped while far away are drawn, and it is noted which rows are seen.
 * Tells whether the page watches its own scrolling at all: one that does not need not be walked.
 */
() => {
  const state = window[Symbol.for("capture")];
  const calm = new CSSStyleSheet();
  calm.replaceSync(`
    *, *::before, *::after {
      scroll-behavior: auto !important;
      scroll-snap-type: none !important;
      caret-color: transparent !important;
    }`);
  const roots = state.roots();
  state.cutting = []; /* the elements that may hide a part of what is in them */
  for (const root of roots) {
    /* An adopted sheet is not subject to the page's own content policy. */
    root.adoptedStyleSheets = [...root.adoptedStyleSheets, calm];
    for (const element of root.querySelectorAll("*")) {
      if (element.loading === "lazy") element.loading = "eager";
      const style = getComputedStyle(element);
      if (style.contentVisibility === "auto") element.style.setProperty("content-visibility", "visible", "important");
      if (style.overflowY !== "visible") state.cutting.push(element);
    }
  }
  state.walking = true;
  state.lookAhead();
  const looking = state.keepsLooking();
  state.finishMovement();
  watchRows();
  state.changedAt = state.sinceStart();
  const noticing = new ResizeObserver(() => (state.changedAt = state.sinceStart()));
  for (const element of [document.documentElement, document.body]) if (element) noticing.observe(element);
  return state.watching || looking || Boolean(window.onscroll || document.onscroll);

  /** A list that shows only the rows near the window takes the others out again, or uses them for others. */
  function watchRows() {
    const MOST_SEEN = 5_000;
    const seen = new Map();
    /** Notes the words in the window and where they stand, on the page and in the window. */
    state.noteRows = () => {
      if (!state.stirred) return;
      state.stirred = false;
      const scrolledPx = state.scroller ? state.scroller.scrollTop : window.scrollY;
      for (const { text, box } of state.textsIn(state.scroller ?? document.body))
        if (box.bottom > 0 && box.top < window.innerHeight && seen.size < MOST_SEEN)
          seen.set(text, { page: Math.round(box.top + scrolledPx), window: Math.round(box.top) });
    };
    /** How many places had words on the way that are nowhere now. What ticks in one place is one. */
    state.rowsGone = () => {
      if (seen.size === 0) return 0;
      const there = new Set();
      for (const root of state.roots()) for (const { text } of state.textsIn(root)) there.add(text);
      const gone = [...seen].filter(([text]) => !there.has(text)).map(([, place]) => place);
      return Math.min(new Set(gone.map((place) => place.page)).size, new Set(gone.map((place) => place.window)).size);
    };
    const noticed = new MutationObserver((changes) => {
      state.stirred = true;
      for (const { removedNodes } of changes)
        for (const node of removedNodes)
          if (node.nodeType === Node.ELEMENT_NODE && (node.textContent.trim() || node.children.length)) state.removed += 1;
    });
    for (const root of roots)
      noticed.observe(root, { childList: true, subtree: true, characterData: true, attributes: true, attributeFilter: ["style"] });
  }
}
