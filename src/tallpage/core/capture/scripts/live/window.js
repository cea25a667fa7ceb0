/* What of the page is in the window, in CSS px from the page's top left corner. */
() => ({
  xPx: Math.round(window.scrollX),
  yPx: Math.round(window.scrollY),
  widthPx: document.documentElement.clientWidth || window.innerWidth,
  heightPx: window.innerHeight,
})
