/* Scrolls what scrolls to a place at once, and lets the page draw what that brings. Tells how far the window is scrolled. */
async ({ top }) => {
  const state = window[Symbol.for("capture")];
  (state.scroller ?? window).scrollTo({ top, left: 0, behavior: "instant" });
  const drawn = () =>
    new Promise((resolve) => {
      const fallback = state.wait(resolve, 1_000); /* no frames come in a starved renderer */
      state.frame(() => {
        clearTimeout(fallback);
        state.wait(resolve, 0);
      });
    });
  await drawn();
  state.stepMovement();
  state.endAnimations();
  await drawn();
  return { xPx: Math.round(window.scrollX), yPx: Math.round(window.scrollY) };
}
