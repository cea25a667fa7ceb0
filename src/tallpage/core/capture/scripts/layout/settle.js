/* Waits until fonts and pictures are decoded and the layout rests; names the pictures that failed. */
async ({ waitMs, restMs }) => {
  const state = window[Symbol.for("capture")];
  const { wait, sinceStart } = state;
  const page = document.scrollingElement || document.documentElement;
  const last = sinceStart() + waitMs;
  const limit = new Promise((resolve) => wait(resolve, waitMs));
  const images = () => [...document.images].filter((image) => image.currentSrc);
  const decoded = () =>
    images()
      .filter((image) => !image.complete)
      .map((image) => image.decode().catch(() => undefined));
  const arrived = () => Promise.race([Promise.all([document.fonts.ready, ...decoded()]), limit]);
  await arrived();
  const drawn = () =>
    new Promise((resolve) => {
      state.frame(() => wait(resolve, 0));
      wait(resolve, 100);
    });
  let heightPx = page.scrollHeight;
  /* Who waits for the scrolling to rest may still change something, now that it does. */
  if (state.watching) state.changedAt = sinceStart();
  /* What was done to the page last shows in the next frame at the earliest. */
  do {
    await drawn();
    if (page.scrollHeight !== heightPx) state.changedAt = sinceStart();
    heightPx = page.scrollHeight;
  } while (sinceStart() - state.changedAt < restMs && sinceStart() < last);
  /* Pictures may have been asked for meanwhile. */
  await arrived();
  return images()
    .filter((image) => !image.complete || image.naturalWidth === 0)
    .map((image) => image.currentSrc);
}
