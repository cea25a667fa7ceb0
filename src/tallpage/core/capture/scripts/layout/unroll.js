/*
 * Lays the page out so that every part of it is in its own place once: an inner scroller gets its
 * whole length, what sticks goes back to where it belongs, backgrounds that hang in the window
 * cover the page. Then back to the top. With `rolled`, the inner scroller stays as it is: it only
 * draws what is near its own window, and is scrolled while it is taken.
 */
({ rolled }) => {
  const state = window[Symbol.for("capture")];
  const set = (element, styles) => {
    for (const [name, value] of Object.entries(styles)) element.style.setProperty(name, value, "important");
  };
  const elements = state.roots().flatMap((root) => [...root.querySelectorAll("*")]);
  window.scrollTo({ top: 0, left: 0, behavior: "instant" });
  if (state.scroller && rolled) {
    state.scroller.scrollTo({ top: 0, left: 0, behavior: "instant" });
    if (state.panel) state.panel.scrollIntoView({ block: "center", behavior: "instant" });
  }
  if (state.scroller && !rolled) unroll(state.scroller);
  for (const element of elements) {
    const style = getComputedStyle(element);
    if (style.position === "sticky")
      set(element, { position: "relative", top: "auto", bottom: "auto", left: "auto", right: "auto" });
    if (style.backgroundAttachment.includes("fixed")) lay(element, style);
  }

  function unroll(scroller) {
    scroller.scrollTo({ top: 0, left: 0, behavior: "instant" });
    const heightPx = scroller.scrollHeight + (scroller.offsetHeight - scroller.clientHeight);
    for (let outer = state.parentOf(scroller); outer; outer = state.parentOf(outer)) {
      const style = getComputedStyle(outer);
      const leastPx = outer.getBoundingClientRect().height;
      set(outer, { height: "auto", "max-height": "none", "min-height": `${leastPx}px` });
      set(outer, { "overflow-y": "visible", overflow: "visible" });
      if (style.position === "fixed") set(outer, { position: "absolute" });
      if (style.contain !== "none") set(outer, { contain: "none" });
    }
    if (getComputedStyle(scroller).position === "fixed") set(scroller, { position: "absolute" });
    if (getComputedStyle(scroller).position === "absolute") set(scroller, { bottom: "auto" });
    set(scroller, { height: `${heightPx}px`, "max-height": "none", overflow: "visible", flex: "none" });
    set(scroller, { "align-self": "flex-start" });
    const widthPx = scroller.getBoundingClientRect().width;
    if (widthPx > 0) set(scroller, { "min-width": `${widthPx}px` });
    /* What grew out of a box that is out of the flow does not lengthen the page by itself. */
    const bottomPx = scroller.getBoundingClientRect().bottom + window.scrollY;
    if ((document.scrollingElement || document.documentElement).scrollHeight < bottomPx)
      set(document.body, { "min-height": `${bottomPx}px` });
    if (state.layer) endWithLayer(Math.max(bottomPx, state.layer.getBoundingClientRect().bottom));
  }

  /** A layer that is the page ends where it ends, and what is behind it is dimmed for so long. */
  function endWithLayer(bottomPx) {
    state.layerBottomPx = Math.ceil(bottomPx);
    const dimmed = new CSSStyleSheet();
    dimmed.replaceSync(`::backdrop { position: absolute !important; height: ${state.layerBottomPx}px !important; }`);
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, dimmed];
    for (const element of elements) {
      if (element.contains(state.layer) || state.layer.contains(element)) continue;
      if (getComputedStyle(element).position !== "fixed") continue;
      const box = element.getBoundingClientRect();
      if (box.width < window.innerWidth * 0.9 || box.height < window.innerHeight * 0.9) continue;
      set(element, { position: "absolute", top: "0", bottom: "auto", height: `${state.layerBottomPx}px` });
    }
  }

  /** A background that hangs in the window is repeated screen by screen, as a scrolling person sees it. */
  function lay(element, style) {
    const tall = element.getBoundingClientRect().height > window.innerHeight * 1.2;
    const size = style.backgroundSize
      .split(",")
      .map((part) => (tall && /cover|contain|auto|%/.test(part) && part.trim() !== "auto" ? "100vw 100vh" : part));
    set(element, { "background-attachment": "scroll" });
    if (tall) set(element, { "background-size": size.join(","), "background-repeat": "repeat" });
  }
}
