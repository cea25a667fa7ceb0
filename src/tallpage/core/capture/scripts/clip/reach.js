/* How far down what scrolls can be scrolled, and where its headings and sections begin, in CSS px. */
() => {
  const state = window[Symbol.for("capture")];
  const scroller = state.scroller ?? document.scrollingElement ?? document.documentElement;
  const edge = state.scroller ? state.scroller.getBoundingClientRect().top : 0;
  const tops = new Set();
  for (const root of state.roots())
    for (const element of root.querySelectorAll("h1, h2, h3, section, article, main > *, table, figure")) {
      const box = element.getBoundingClientRect();
      if (box.width > 0 && box.height > 0) tops.add(Math.round(box.top - edge + scroller.scrollTop));
    }
  return { reachPx: Math.max(0, scroller.scrollHeight - scroller.clientHeight), topsPx: [...tops].sort((one, other) => one - other) };
}
