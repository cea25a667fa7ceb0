/*
 * What hangs in the window rather than in the page: notices along the bottom, bubbles in a corner,
 * covers. They are hidden, or (when they shall be kept) laid once on the page: those of the window's
 * upper half where they are, those of its lower half at the page's end. What was asked for, and what it lies in, stays. A bar
 * along the top and a rail down the side belong to the page and stay, once. Own selectors are
 * always hidden, and what holds nearly all of the page never. Tells what was hidden, in the element's own words.
 */
({ selectors, keepsFixed, element: wanted }) => {
  const state = window[Symbol.for("capture")];
  const { fixedBefore } = state;
  const leftOut = [];
  state.leftOut ??= [];
  const viewWidth = window.innerWidth;
  const viewHeight = window.innerHeight;
  const page = document.scrollingElement || document.documentElement;
  const belongs = (box, style) => {
    const topBar = box.top <= 8 && box.width >= viewWidth * 0.5 && box.height <= viewHeight * 0.4;
    const rail = box.top <= viewHeight * 0.25 && box.height >= viewHeight * 0.5 && box.width <= viewWidth * 0.4;
    const backdrop = Number.parseInt(style.zIndex, 10) < 0;
    return topBar || rail || backdrop;
  };
  const wordsOf = (element) => {
    const words = (element.innerText || element.textContent || "").trim().replace(/\s+/g, " ");
    return words.slice(0, 60) || element.getAttribute("aria-label") || element.tagName.toLowerCase();
  };
  const hide = (element) => {
    leftOut.push(wordsOf(element));
    state.leftOut.push({ element, words: state.countWords(element.innerText || "") });
    if (element instanceof HTMLDialogElement && element.open) element.close();
    for (const inner of [element, ...element.querySelectorAll("*")])
      inner.style.setProperty("visibility", "hidden", "important");
  };
  const layAtTheEnd = (element, box) => {
    const styles = { position: "absolute", bottom: "auto", margin: "0", transform: "none" };
    styles.left = `${box.left}px`;
    const lower = box.top + box.height / 2 > viewHeight / 2;
    styles.top = `${lower ? page.scrollHeight - (viewHeight - box.top) : box.top}px`;
    styles.width = `${box.width}px`;
    document.body.append(element); /* out of whatever would move it */
    for (const [name, value] of Object.entries(styles)) element.style.setProperty(name, value, "important");
  };
  const malformed = [];
  for (const selector of selectors) {
    try {
      for (const element of document.querySelectorAll(selector)) hide(element);
    } catch {
      malformed.push(selector);
    }
  }
  /* What the page itself lies in hangs in no window. */
  const holding = new Set([document.documentElement, document.body]);
  for (const inner of [state.scroller, state.frameElement, wanted])
    for (let outer = inner; outer; outer = state.parentOf(outer)) holding.add(outer);
  const fixed = [];
  for (const root of state.roots()) {
    for (const element of root.querySelectorAll("*")) {
      if (holding.has(element)) continue;
      const style = getComputedStyle(element);
      if (style.position !== "fixed" || style.visibility === "hidden" || style.display === "none") continue;
      if (fixedBefore && !fixedBefore.has(element)) continue;
      const box = element.getBoundingClientRect();
      if (box.width * box.height < 4 || style.opacity === "0" || belongs(box, style)) continue;
      fixed.push([element, box]);
    }
  }
  /* What holds nearly everything that the page has is the page. */
  const chars = (element) => (element.innerText || "").trim().length;
  const parts = (element) => element.querySelectorAll("*").length;
  const isPage = (element, box) =>
    box.width * box.height > viewWidth * viewHeight * 0.6 &&
    parts(element) > parts(document.body) * 0.7 &&
    chars(element) >= chars(document.body) * 0.7;
  for (const [element, box] of fixed) {
    if (isPage(element, box)) continue;
    const cover = box.width >= viewWidth * 0.9 && box.height >= viewHeight * 0.9;
    if (keepsFixed && !cover) layAtTheEnd(element, box);
    else if (getComputedStyle(element).visibility !== "hidden") hide(element);
  }
  return { leftOut, malformed };
}
