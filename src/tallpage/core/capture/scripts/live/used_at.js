/* What would be used by a click at a place of the window, and noted for whoever tries the ways to it. */
({ x, y }) => {
  const state = window[Symbol.for("capture")];
  state.meant = state.usedAt(x, y);
  return state.meant ? state.described(state.meant) : null;
}
