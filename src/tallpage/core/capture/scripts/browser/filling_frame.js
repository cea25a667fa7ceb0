/* The frame that fills the window, of a page that has nothing to scroll itself; null when there is none. */
() => {
  const state = window[Symbol.for("capture")];
  const page = document.scrollingElement || document.documentElement;
  if (state.scroller || page.scrollHeight > window.innerHeight * 1.5) return null;
  const frames = state.roots().flatMap((root) => [...root.querySelectorAll("iframe, frame")]);
  const share = (frame) => {
    const box = frame.getBoundingClientRect();
    const width = Math.max(0, Math.min(box.right, window.innerWidth) - Math.max(box.left, 0));
    const height = Math.max(0, Math.min(box.bottom, window.innerHeight) - Math.max(box.top, 0));
    return (width * height) / (window.innerWidth * window.innerHeight);
  };
  const filling = frames.filter((frame) => frame.checkVisibility({ visibilityProperty: true }) && share(frame) > 0.5);
  return filling.sort((one, other) => share(other) - share(one))[0] ?? null;
}
