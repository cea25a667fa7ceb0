/*
 * Ends all movement: what has an end is shown at its end, what has none at its beginning. With
 * `transitions`, what is set in motion from now on still moves, and is ended when it is asked for.
 */
({ transitions }) => {
  const state = window[Symbol.for("capture")];
  state.restMovement();
  const still = new CSSStyleSheet();
  if (!transitions) still.replaceSync("*, *::before, *::after { transition: none !important; }");
  for (const root of state.roots()) {
    root.adoptedStyleSheets = [...root.adoptedStyleSheets, still];
    for (const element of root.querySelectorAll("audio, video")) if (!element.paused) element.pause();
  }
  state.endAnimations();
}
