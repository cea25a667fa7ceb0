const HEIGHT = "--lower-bar-height";

/** Ref of a bar that stands at the lower edge of the window: notices come up above it instead of covering it. */
export function lowerBar(bar: HTMLElement | null) {
  if (!bar) return undefined;
  const { style } = document.documentElement;
  const watching = new ResizeObserver(() => style.setProperty(HEIGHT, `${bar.offsetHeight}px`));
  watching.observe(bar);
  return () => {
    watching.disconnect();
    style.removeProperty(HEIGHT);
  };
}
