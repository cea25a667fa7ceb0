/* What has the focus, and noted for whoever tries the ways to it; null where nothing has. */
() => {
  const state = window[Symbol.for("capture")];
  state.meant = state.focused();
  return state.meant ? state.described(state.meant) : null;
}
