/* Notes what hangs in the window before the steps: what the steps bring up is wanted, not a notice. */
() => {
  const hanging = new WeakSet();
  for (const element of document.querySelectorAll("*"))
    if (getComputedStyle(element).position === "fixed" && element.checkVisibility()) hanging.add(element);
  window[Symbol.for("capture")].hangingBefore = hanging;
}
