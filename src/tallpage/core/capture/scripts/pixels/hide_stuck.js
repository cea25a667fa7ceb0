/*
 * Hides what stands where it stood before the page was moved: bars and dots that are in the picture
 * already. Tells whether there was anything.
 */
() => {
  const state = window[Symbol.for("capture")];
  let hidden = 0;
  for (const [node, place] of state.placesBefore ?? [])
    if (state.places.get(node) === place) {
      (node instanceof Element ? node : node.parentElement)?.style.setProperty("opacity", "0", "important");
      hidden += 1;
    }
  return hidden > 0;
}
