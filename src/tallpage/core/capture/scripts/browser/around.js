/*
 * Hides what lies around the thing that scrolls, or shows it again. It is made see-through rather than
 * invisible: some scroll bars that a list draws itself only work while they are visible.
 */
({ hide }) => {
  const state = window[Symbol.for("capture")];
  const inner = state.scroller ?? state.frameElement;
  for (const [element, opacity, priority] of state.around ?? []) element.style.setProperty("opacity", opacity, priority);
  state.around = hide && inner ? hideAround() : null;

  function hideAround() {
    const hidden = [];
    for (let within = inner; within; within = state.parentOf(within))
      for (const element of within.parentNode?.children ?? []) {
        if (element === within || !element.style || /^(head|script|style)$/.test(element.localName)) continue;
        hidden.push([element, element.style.getPropertyValue("opacity"), element.style.getPropertyPriority("opacity")]);
        element.style.setProperty("opacity", "0", "important");
      }
    return hidden;
  }
}
