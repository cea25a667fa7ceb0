/*
 * For a page that has to be scrolled while it is taken: what hangs at the window's upper edge or
 * side is laid on the page where it stands, so that it is not drawn at every step.
 */
() => {
  const elements = window[Symbol.for("capture")].roots().flatMap((root) => [...root.querySelectorAll("*")]);
  for (const element of elements) {
    const style = getComputedStyle(element);
    if (style.position !== "fixed" || style.visibility === "hidden" || style.display === "none") continue;
    const box = element.getBoundingClientRect();
    const styles = { position: "absolute", bottom: "auto", right: "auto", margin: "0" };
    const origin = element.offsetParent?.getBoundingClientRect() ?? { left: -window.scrollX, top: -window.scrollY };
    styles.left = `${box.left - origin.left}px`;
    styles.top = `${box.top - origin.top}px`;
    styles.width = `${box.width}px`;
    styles.height = `${box.height}px`;
    for (const [name, value] of Object.entries(styles)) element.style.setProperty(name, value, "important");
  }
}
