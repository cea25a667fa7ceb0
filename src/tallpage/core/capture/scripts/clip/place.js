/* Where an element is in the window: its box in CSS px, and how far the page is scrolled. */
({ element }) => {
  const box = element.getBoundingClientRect();
  return { xPx: box.left, yPx: box.top, widthPx: box.width, heightPx: box.height, scrolledPx: [window.scrollX, window.scrollY] };
}
