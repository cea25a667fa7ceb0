/*
 * Movement that a page makes by itself, frame by frame or tick by tick, lasts five seconds of the
 * page's own time and then waits to be asked: so every take of an unchanged page ends with the same
 * frame, whether the browser was quick or slow. A loop of frames is told a clock of its own, which
 * begins at whole tens of seconds. Runs after the prelude, before the page's own scripts.
 */
(() => {
  const LASTS_MS = 5_000;
  const FRAME_MS = 1_000 / 60;
  const LASTS_FRAMES = LASTS_MS / FRAME_MS;
  const CLOCK_FROM_MS = 10_000;
  const SHORT_MS = 1_000;
  const BUSY_AT_MOST_MS = 400;
  const FRAMES_OF_A_STEP = 3;
  const TURNS = 20;
  const TURN_MS = 250;
  const state = window[Symbol.for("capture")];
  const { sinceStart } = state;
  const frame = window.requestAnimationFrame.bind(window);
  state.frame = frame;

  /* Loops of frames: id given to the page -> what was asked for. */
  const calls = new Map();
  let lastId = 0;
  let running = null;
  const now = performance.now;
  performance.now = () => (running ? running.time : now());
  const timeOf = (call) => call.from + call.depth * FRAME_MS;
  const run = (call) => {
    calls.delete(call.id);
    const outer = running;
    running = { call, time: timeOf(call) };
    try {
      call.callback(running.time);
    } finally {
      running = outer;
    }
  };
  const quietly = (work) => {
    try {
      work();
    } catch (error) {
      state.wait(() => reportError(error), 0);
    }
  };
  const schedule = (call) =>
    frame(function tick() {
      if (!calls.has(call.id)) return;
      /* A loop runs no faster than a display would show it, although frames come faster here. */
      if (call.depth > 0 && sinceStart() < call.since + call.depth * FRAME_MS) frame(tick);
      else run(call);
    });
  window.requestAnimationFrame = function requestAnimationFrame(callback) {
    const parent = running?.call;
    const call = {
      callback,
      id: (lastId += 1),
      depth: parent ? parent.depth + 1 : 0,
      from: parent ? parent.from : Math.ceil(now() / CLOCK_FROM_MS) * CLOCK_FROM_MS,
      since: parent ? parent.since : sinceStart(),
    };
    calls.set(call.id, call);
    if (call.depth < LASTS_FRAMES) schedule(call);
    return call.id;
  };
  window.cancelAnimationFrame = (id) => calls.delete(id);

  /* Timers that tick: id given to the page -> how often it has ticked, and how often it may. */
  const ticking = new Map();
  const every = window.setInterval.bind(window);
  const stop = window.clearInterval.bind(window);
  window.setInterval = function setInterval(callback, period = 0, ...rest) {
    if (typeof callback !== "function") return every(callback, period, ...rest);
    const timer = { ticks: 0, most: Math.floor((LASTS_MS - 1) / Math.max(period, FRAME_MS)), period };
    timer.tick = () => {
      timer.ticks += 1;
      callback(...rest);
    };
    const id = every(() => {
      if (timer.ticks < timer.most) timer.tick();
    }, period);
    ticking.set(id, timer);
    return id;
  };
  /* One function may be used to stop the other's timers. */
  const { clearTimeout } = window;
  const clear = (id) => {
    ticking.delete(id);
    stop(id);
    clearTimeout(id);
  };
  window.clearInterval = clear;
  window.clearTimeout = clear;

  const inFrames = (name) => {
    for (let index = 0; index < window.frames.length; index += 1)
      try {
        window.frames[index][Symbol.for("capture")]?.[name]();
      } catch {
        /* a frame of another site */
      }
  };
  /** Everything that moves comes to the end of its five seconds, at once. */
  state.finishMovement = () => {
    const until = sinceStart() + BUSY_AT_MOST_MS;
    for (let young = true; young && sinceStart() < until; ) {
      young = false;
      for (const call of [...calls.values()])
        if (calls.has(call.id) && call.depth > 0 && call.depth < LASTS_FRAMES) {
          young = true;
          quietly(() => run(call));
        }
      if (young) state.aheadMs += FRAME_MS;
    }
    for (const [id, timer] of ticking)
      while (ticking.has(id) && timer.ticks < timer.most && sinceStart() < until) quietly(timer.tick);
    inFrames("finishMovement");
  };
  /** Whether something looks at the page again and again: it may be looking at how far it was scrolled. */
  state.keepsLooking = () =>
    [...calls.values()].some((call) => call.depth > 0) || [...ticking.values()].some((timer) => timer.period <= SHORT_MS);
  /** What waits to be asked is asked: a loop may look at how far the page was scrolled. */
  state.stepMovement = () => {
    for (let count = 0; count < FRAMES_OF_A_STEP; count += 1)
      for (const call of [...calls.values()])
        if (calls.has(call.id) && call.depth >= LASTS_FRAMES) quietly(() => run(call));
    for (const [id, timer] of ticking)
      if (ticking.has(id) && timer.period <= SHORT_MS && timer.ticks >= timer.most) quietly(timer.tick);
    inFrames("stepMovement");
  };
  /** What was set in motion by the last scrolling comes to rest. */
  state.restMovement = () => {
    state.finishMovement();
    for (let turn = 0; turn < TURNS; turn += 1) {
      state.aheadMs += TURN_MS;
      state.stepMovement();
    }
  };
  const endAnimation = (animation) => {
    try {
      const timeline = animation.timeline;
      if (window.ViewTimeline && timeline instanceof ViewTimeline) {
        /* Driven by where the element is in the window: shown as it is in the window's middle. */
        animation.effect.updateTiming({ fill: "both" });
        animation.pause();
        animation.currentTime = CSS.percent(50);
      } else if (window.ScrollTimeline && timeline instanceof ScrollTimeline) {
        animation.pause();
      } else if (Number.isFinite(animation.effect?.getComputedTiming().endTime)) animation.finish();
      else {
        animation.pause();
        animation.currentTime = 0;
      }
    } catch {
      /* an animation without a target cannot be ended, and shows nothing */
    }
  };
  /** What moves by styles is shown at its end, or at its beginning where it has none. */
  state.endAnimations = () => {
    for (const root of state.roots()) for (const animation of root.getAnimations()) endAnimation(animation);
  };
})();
