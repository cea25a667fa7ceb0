/* Notes what hangs in the window before the steps: what the steps bring up is wanted, not a notice. */
() => {
  const fixed = new WeakSet();
  const elements = window[Symbol.for("capture")].roots().flatMap((root) => [...root.querySelectorAll("*")]);
  for (const element of elements)
    if (getComputedStyle(element).position === "fixed" && element.checkVisibility()) fixed.add(element);
  window[Symbol.for("capture")].fixedBefore = fixed;
}
