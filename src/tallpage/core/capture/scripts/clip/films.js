/*
 * Takes films on by so many ms. Each is stopped when it is first seen to play, and is then shown moment by
 * moment; one that began by itself before the page was watched begins anew. A film whose host gives it
 * only from its beginning is fetched whole; one that cannot be, plays as the browser plays it.
 */
async ({ ms }) => {
  /* Just after the moment: at the very border of two pictures it may be either. */
  const JUST_S = 0.001;
  const MOST_BYTES = 60_000_000;
  const FETCHED_IN_MS = 10_000;
  const state = window[Symbol.for("capture")];
  const isFirst = !state.films;
  const films = (state.films ??= new Map());
  const free = (state.freeFilms ??= new WeakSet());
  const canGo = (film) => film.seekable.length > 0 && film.seekable.end(film.seekable.length - 1) > 0;
  const fetched = async (film) => {
    if (!film.currentSrc) return false; /* it shows a camera, or the like */
    const signal = AbortSignal.timeout(FETCHED_IN_MS);
    const answer = await fetch(film.currentSrc, { signal });
    if (!answer.ok || !(Number(answer.headers.get("Content-Length") ?? NaN) <= MOST_BYTES)) {
      await answer.body.cancel();
      return false;
    }
    const whole = await answer.blob();
    const moment = film.currentTime;
    film.src = URL.createObjectURL(whole);
    await new Promise((resolve, reject) => {
      film.addEventListener("loadeddata", resolve, { once: true });
      film.addEventListener("error", reject, { once: true });
      signal.addEventListener("abort", reject, { once: true });
    });
    film.currentTime = moment;
    return canGo(film);
  };
  const taken = async (film) => {
    film.pause();
    if (films.has(film)) return;
    if (!canGo(film) && !(await fetched(film).catch(() => false))) {
      free.add(film);
      film.play().catch(() => undefined); /* it may wait for data for ever */
      return;
    }
    film.pause(); /* a new source may begin by itself */
    const beginsAnew = isFirst && film.autoplay;
    films.set(film, beginsAnew ? 0 : film.currentTime);
    if (beginsAnew) film.currentTime = 0;
  };
  const playing = state.roots().flatMap((root) => [...root.querySelectorAll("video")].filter((film) => !film.paused && !film.ended && !free.has(film)));
  await Promise.all(playing.map(taken));
  if (ms === 0) return;
  for (const [film, moment] of films) {
    const next = moment + (ms / 1_000) * film.playbackRate;
    const isOver = next >= film.duration;
    const at = isOver ? (film.loop ? next % film.duration : film.duration) : next;
    film.currentTime = at + JUST_S;
    if (!film.isConnected || (isOver && !film.loop)) films.delete(film);
    else films.set(film, at);
  }
}
