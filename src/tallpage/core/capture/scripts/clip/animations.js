/*
 * Takes all that moves by styles on by so many ms. Each is stopped when it is first seen, and begins
 * then: so it moves the same however long a picture takes.
 */
async ({ ms }) => {
  const state = window[Symbol.for("capture")];
  state.inHand ??= new WeakSet();
  const found = state.roots().flatMap((root) => root.getAnimations());
  /* What scrolling drives is left to it; one without a target shows nothing. */
  const timed = found.filter((animation) => animation.timeline === document.timeline && animation.effect?.target);
  const fresh = timed.filter((animation) => animation.playState === "running" && !state.inHand.has(animation));
  for (const animation of fresh) {
    state.inHand.add(animation);
    animation.pause();
  }
  await Promise.all(fresh.map((animation) => animation.ready.catch(() => undefined))); /* it may go meanwhile */
  for (const animation of fresh) animation.currentTime = 0;
  for (const animation of timed) {
    if (!state.inHand.has(animation) || animation.playState !== "paused") continue;
    const end = animation.effect.getComputedTiming().endTime;
    const next = Number(animation.currentTime) + ms * animation.playbackRate;
    if (Number.isFinite(end) && next >= end) animation.finish();
    else animation.currentTime = next;
  }
}
