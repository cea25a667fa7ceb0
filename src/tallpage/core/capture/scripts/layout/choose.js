/*
 * Finds what really scrolls: the window, an element of an application that fills the window, or an
 * open layer that holds most of the page's words; or takes the panel that was asked for. A page that
 * was locked is unlocked, unless it may be moved by the wheel.
 * Tells whether anything scrolls, and whether the wheel may move the page instead.
 */
({ panel, byWheel }) => {
  const state = window[Symbol.for("capture")];
  const WORDY = 20; /* words beyond an edge that are worth a lock's removal */
  state.scroller = null;
  state.layer = null;
  const view = { width: window.innerWidth, height: window.innerHeight };
  const page = document.scrollingElement || document.documentElement;
  state.panel = panel;
  if (panel) {
    const within = [panel, ...panel.querySelectorAll("*")];
    state.scroller = within.find(scrolls) ?? within.find((element) => hidesPart(element)) ?? null;
    panel.scrollIntoView({ block: "center", behavior: "instant" });
  } else {
    chooseScroller();
  }
  const reachPx = state.scroller ? state.scroller.scrollHeight - state.scroller.clientHeight : page.scrollHeight - view.height;
  return {
    scrolls: reachPx > view.height * 0.05,
    heightPx: (state.scroller || page).scrollHeight,
    watching: Boolean(panel || state.scroller?.onscroll),
    wheel: !panel && reachPx <= view.height * 0.1 && hearsWheel(),
  };

  function chooseScroller() {
    const locked = isLocked();
    const scrolling = state.cutting.filter((element) => element !== page && scrolls(element));
    const layers = scrolling.filter((element) => seenShare(element) > 0.25 && layerOf(element));
    const layer = widest(layers.filter((element) => holdsMostWords(layerOf(element))));
    if (layer) {
      state.scroller = layer;
      state.layer = layerOf(layer);
      return;
    }
    const lockedPx = locked ? lockedHeightPx() : 0;
    const long = page.scrollHeight > view.height * 1.1;
    if (!long || locked) {
      const panels = scrolling.filter(
        (element) =>
          seenShare(element) > 0.4 &&
          element.scrollHeight >= Math.max(lockedPx, long ? page.scrollHeight : 0) &&
          !element.closest("dialog, [role=dialog], [aria-modal=true]"),
      );
      state.scroller = widest(panels);
    }
    if (state.scroller) return;
    /* Behind what locked the page lies what was asked for. */
    if (locked && (long || lockedPx > view.height * 1.1)) unlock();
    else if (!long && !(byWheel && hearsWheel())) state.scroller = widest(state.cutting.filter(hidesWords));
  }

  function scrolls(element) {
    return element.scrollHeight > element.clientHeight + 40 && /auto|scroll|overlay/.test(getComputedStyle(element).overflowY);
  }

  function hidesPart(element) {
    return element.scrollHeight > element.clientHeight + 40 && /hidden|clip/.test(getComputedStyle(element).overflowY);
  }

  /** The share of the window that an element takes. */
  function seenShare(element) {
    const box = element.getBoundingClientRect();
    const width = Math.max(0, Math.min(box.right, view.width) - Math.max(box.left, 0));
    const height = Math.max(0, Math.min(box.bottom, view.height) - Math.max(box.top, 0));
    return (width * height) / (view.width * view.height);
  }

  /** The element that hides the largest part of what is in it. */
  function widest(elements) {
    const hiddenPx = (element) => (element.scrollHeight - element.clientHeight) * element.clientWidth;
    return elements.reduce((best, element) => (best && hiddenPx(best) >= hiddenPx(element) ? best : element), null);
  }

  /** The outermost thing that hangs in the window and holds an element, if any. */
  function layerOf(element) {
    let layer = null;
    for (let outer = element; outer && outer !== document.body; outer = state.parentOf(outer))
      if (getComputedStyle(outer).position === "fixed") layer = outer;
    return layer;
  }

  function holdsMostWords(layer) {
    const words = (element) => state.countWords(element?.innerText || "");
    return words(layer) >= WORDY && words(layer) * 2 > words(document.body);
  }

  function isLocked() {
    const styles = [getComputedStyle(page), getComputedStyle(document.body || page)];
    return styles.some((style) => /hidden|clip/.test(style.overflowY) || style.position === "fixed");
  }

  /** How long the page would be without its lock. */
  function lockedHeightPx() {
    return Math.max(page.scrollHeight, document.body?.scrollHeight ?? 0, document.body?.getBoundingClientRect().height ?? 0);
  }

  /** The page's own rules may be written anew by its scripts: a sheet outlasts them, own styles beat the rest. */
  function unlock() {
    const styles = { "overflow-y": "visible", height: "auto", "max-height": "none" };
    const rules = Object.entries(styles).map(([name, value]) => `${name}: ${value} !important;`);
    const unlocked = new CSSStyleSheet();
    unlocked.replaceSync(`html, body { ${rules.join(" ")} }`);
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, unlocked];
    for (const element of [page, document.body]) {
      if (!element) continue;
      for (const [name, value] of Object.entries(styles)) element.style.setProperty(name, value, "important");
      if (getComputedStyle(element).position !== "fixed") continue;
      for (const [name, value] of Object.entries({ position: "relative", top: "auto", left: "auto" }))
        element.style.setProperty(name, value, "important");
    }
  }

  /** Whether a box that fills the window cuts off words that stand in it one below the other. */
  function hidesWords(element) {
    if (element.scrollHeight <= element.clientHeight * 1.2 || !/hidden|clip/.test(getComputedStyle(element).overflowY)) return false;
    if (seenShare(element) < 0.6) return false;
    const bottomPx = element.getBoundingClientRect().top + element.clientTop + element.clientHeight;
    let words = 0;
    for (const { text, box } of state.textsIn(element)) if (box.top >= bottomPx) words += state.countWords(text);
    return words >= WORDY;
  }

  function hearsWheel() {
    return state.wheeling || Boolean(window.onwheel || document.onwheel || document.body?.onwheel);
  }
}
