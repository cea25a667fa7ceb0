/* Chooses an option of the list that was meant, as a person would; the field as it then is. */
(number) => {
  const state = window[Symbol.for("capture")];
  const list = state.meant;
  if (list?.localName !== "select" || !list.options[number]) return null;
  list.focus();
  list.selectedIndex = number;
  for (const type of ["input", "change"]) list.dispatchEvent(new Event(type, { bubbles: true, composed: true }));
  return { ...state.described(list), value: list.options[number].label };
}
