/* The element at a place of the window as it can be taken, and noted for whoever tries the ways to it. */
({ x, y }) => {
  const state = window[Symbol.for("capture")];
  state.meant = state.elementAt(x, y);
  return state.meant ? state.described(state.meant) : null;
}
