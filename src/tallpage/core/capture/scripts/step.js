/* Scrolls what scrolls to a place and waits until it is drawn; with `alone`, nothing around it shows. */
async ({ top, alone }) => {
  const state = window[Symbol.for("capture")];
  const drawn = () =>
    new Promise((resolve) => {
      state.frame(() => state.wait(resolve, 15));
      state.wait(resolve, 150);
    });
  const around = (state.around ??= alone ? hideAround(state.scroller) : null);
  if (around && !alone) {
    for (const [element, visibility, priority] of around) element.style.setProperty("visibility", visibility, priority);
    state.around = null;
  }
  (state.scroller || window).scrollTo({ top, left: 0, behavior: "instant" });
  await drawn();
  state.stepMovement();
  await drawn();

  function hideAround(scroller) {
    const hidden = [];
    for (let inner = scroller; inner.parentElement; inner = inner.parentElement)
      for (const element of inner.parentElement.children) {
        if (element === inner || !element.style) continue;
        hidden.push([element, element.style.getPropertyValue("visibility"), element.style.getPropertyPriority("visibility")]);
        element.style.setProperty("visibility", "hidden", "important");
      }
    return hidden;
  }
}
