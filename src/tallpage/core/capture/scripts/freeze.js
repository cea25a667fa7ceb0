/* Ends all movement: what has an end is shown at its end, what has none at its beginning. */
() => {
  const state = window[Symbol.for("capture")];
  state.restMovement();
  const still = new CSSStyleSheet();
  still.replaceSync("*, *::before, *::after { transition: none !important; }");
  const roots = [document];
  for (let index = 0; index < roots.length; index += 1) {
    const root = roots[index];
    root.adoptedStyleSheets = [...root.adoptedStyleSheets, still];
    for (const element of root.querySelectorAll("*")) {
      if (element.shadowRoot) roots.push(element.shadowRoot);
      if (element instanceof HTMLMediaElement && !element.paused) element.pause();
    }
  }
  for (const root of roots) for (const animation of root.getAnimations()) end(animation);

  function end(animation) {
    try {
      const timeline = animation.timeline;
      if (window.ViewTimeline && timeline instanceof ViewTimeline) {
        /* Driven by where the element is in the window: shown as it is in the window's middle. */
        animation.effect.updateTiming({ fill: "both" });
        animation.pause();
        animation.currentTime = CSS.percent(50);
      } else if (window.ScrollTimeline && timeline instanceof ScrollTimeline) {
        animation.pause();
      } else if (Number.isFinite(animation.effect?.getComputedTiming().endTime)) animation.finish();
      else {
        animation.pause();
        animation.currentTime = 0;
      }
    } catch {
      /* an animation without a target cannot be ended, and shows nothing */
    }
  }
}
