/* Whether every film in the window shows the moment that it was taken to. */
() => {
  const { films } = window[Symbol.for("capture")];
  const isSeen = (box) => box.width > 0 && box.height > 0 && box.bottom > 0 && box.right > 0 && box.top < window.innerHeight && box.left < window.innerWidth;
  return [...(films?.keys() ?? [])].every((film) => !film.seeking || !isSeen(film.getBoundingClientRect()));
}
