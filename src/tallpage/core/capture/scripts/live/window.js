/* The page's title, and what of it is in the window, in CSS px from its top left corner. */
() => ({
  title: document.title,
  box: {
    x_px: Math.round(window.scrollX),
    y_px: Math.round(window.scrollY),
    width_px: document.documentElement.clientWidth || window.innerWidth,
    height_px: window.innerHeight,
  },
})
