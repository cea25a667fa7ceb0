/* Whether an element is the one that was meant, lies in it, or holds it and shows nothing besides. */
(element) => {
  const { meant } = window[Symbol.for("capture")];
  return Boolean(meant) && (meant === element || meant.contains(element));
}
