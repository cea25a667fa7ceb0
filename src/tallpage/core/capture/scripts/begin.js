/*
 * Makes ready for the walk of the page, or of one panel in it: what waits to be near is fetched at
 * once, movement takes no time, sections that are skipped while far away are drawn, and it is found
 * what really scrolls: the window, or an element of an application that fills the window.
 * Tells whether the page has to be walked through: whether it watches its own scrolling at all.
 */
(panel) => {
  const state = window[Symbol.for("capture")];
  const calm = new CSSStyleSheet();
  calm.replaceSync(`
    *, *::before, *::after {
      scroll-behavior: auto !important;
      scroll-snap-type: none !important;
      caret-color: transparent !important;
    }`);
  const roots = [document];
  for (let index = 0; index < roots.length; index += 1) {
    const root = roots[index];
    /* An adopted sheet is not subject to the page's own content policy. */
    root.adoptedStyleSheets = [...root.adoptedStyleSheets, calm];
    for (const element of root.querySelectorAll("*")) {
      if (element.shadowRoot) roots.push(element.shadowRoot);
      if (element.loading === "lazy") element.loading = "eager";
      if (getComputedStyle(element).contentVisibility === "auto")
        element.style.setProperty("content-visibility", "visible", "important");
    }
  }
  state.walking = true;
  state.lookAhead();
  const looking = state.keepsLooking();
  state.finishMovement();
  /* A list that shows only the rows near the window takes the others out again. */
  new MutationObserver((changes) => {
    for (const { removedNodes } of changes)
      for (const node of removedNodes) if (node.nodeType === Node.ELEMENT_NODE && (node.textContent.trim() || node.children.length)) state.removed += 1;
  }).observe(document, { childList: true, subtree: true });
  state.changedAt = state.sinceStart();
  const noticing = new ResizeObserver(() => (state.changedAt = state.sinceStart()));
  for (const element of [document.documentElement, document.body]) if (element) noticing.observe(element);
  state.scroller = null;
  const view = { width: window.innerWidth, height: window.innerHeight };
  const page = document.scrollingElement || document.documentElement;
  const long = page.scrollHeight > view.height * 1.1;
  if (panel) {
    state.scroller = [panel, ...panel.querySelectorAll("*")].find(scrolls) ?? null;
    panel.scrollIntoView({ block: "center", behavior: "instant" });
  } else if (!long || locked(page)) {
    let least = view.width * view.height * 0.4;
    for (const root of roots) {
      for (const element of root.querySelectorAll("*")) {
        if (element === page || !scrolls(element)) continue;
        if (long && element.scrollHeight < page.scrollHeight) continue;
        if (element.closest("dialog, [role=dialog], [aria-modal=true]")) continue;
        const box = element.getBoundingClientRect();
        const seen =
          Math.max(0, Math.min(box.right, view.width) - Math.max(box.left, 0)) *
          Math.max(0, Math.min(box.bottom, view.height) - Math.max(box.top, 0));
        if (seen <= least) continue;
        least = seen;
        state.scroller = element;
      }
    }
  }
  /* A page that a notice locked is unlocked: behind it lies what was asked for. */
  if (long && !state.scroller && !panel)
    for (const element of [page, document.body])
      if (element && /hidden|clip/.test(getComputedStyle(element).overflowY))
        element.style.setProperty("overflow-y", "visible", "important");
  return state.watching || looking || Boolean(panel) || Boolean(window.onscroll || document.onscroll || state.scroller?.onscroll);

  function scrolls(element) {
    return element.scrollHeight > element.clientHeight + 40 && /auto|scroll|overlay/.test(getComputedStyle(element).overflowY);
  }

  /** A page whose body must not scroll is an application: its inside scrolls. */
  function locked(root) {
    const styles = [getComputedStyle(root), getComputedStyle(document.body || root)];
    return styles.some((style) => style.overflowY === "hidden" || style.overflowY === "clip");
  }
}
