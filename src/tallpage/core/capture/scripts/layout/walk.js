/* Scrolls on by some screens so that late images and sections load; tells where it got to. */
async ({ fromPx, screens, lingerMs }) => {
  const STEP_MS = 500;
  const REST_MS = 15;
  const LEAST_FRAMES = 8; /* on a busy machine a quarter of a second may hold hardly any */
  const state = window[Symbol.for("capture")];
  const scroller = state.scroller;
  const page = scroller || document.scrollingElement || document.documentElement;
  const viewPx = () => (scroller ? scroller.clientHeight : window.innerHeight);
  const scrollTo = (top) => (scroller || window).scrollTo({ top, left: 0, behavior: "instant" });
  const drawn = () =>
    new Promise((resolve) => {
      const fallback = state.wait(resolve, 1_000); /* no frames come in a starved renderer */
      state.frame(() => {
        clearTimeout(fallback);
        /* A handler that waits for the scrolling to rest gets its rest, as short as it has become. */
        state.wait(resolve, state.listening ? REST_MS : 0);
      });
    });
  const ended = (y) => y + viewPx() >= page.scrollHeight;
  let y = fromPx;
  for (let step = 0; step < screens; step += 1) {
    state.aheadMs += STEP_MS;
    scrollTo(y);
    /* Observers are told between one frame and the next. */
    await drawn();
    state.stepMovement();
    await drawn();
    state.noteRows();
    if (ended(y)) {
      /* A feed appends when its end is seen; a page without a second screen shows no end to reach. */
      const until = state.sinceStart() + lingerMs;
      for (let frames = 0; ended(y) && (frames < LEAST_FRAMES || state.sinceStart() < until); frames += 1) await drawn();
      if (ended(y)) return { yPx: y, heightPx: page.scrollHeight, atEnd: true };
      /* What marks the end must be seen to leave the window before it can come into it again. */
      await drawn();
      await drawn();
    }
    y += viewPx();
  }
  return { yPx: y, heightPx: page.scrollHeight, atEnd: false };
}
