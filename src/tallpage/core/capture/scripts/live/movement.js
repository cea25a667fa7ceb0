/*
 * For a page that a person uses: it moves as it likes, in its own time. While its picture is taken,
 * what moves by styles or plays is halted, and whatever the scripts of a take change is noted, so that
 * the page can go on afterwards as if nothing had been. Runs after the prelude, in place of the
 * movement of pages that nobody watches.
 */
(() => {
  const state = window[Symbol.for("capture")];
  const NOTED = { attributes: true, attributeOldValue: true, subtree: true };
  const nothing = () => undefined;
  state.frame = window.requestAnimationFrame.bind(window);
  state.finishMovement = state.restMovement = nothing;
  /* Loops of frames and timers that tick may be looking at how far the page was scrolled. */
  const SHORT_MS = 1_000;
  const LOOP_MS = 200;
  let askedAt = -Infinity;
  window.requestAnimationFrame = function requestAnimationFrame(callback) {
    askedAt = state.sinceStart();
    return state.frame(callback);
  };
  const ticking = new Map();
  const every = window.setInterval.bind(window);
  const stops = [window.clearInterval, window.clearTimeout];
  window.setInterval = function setInterval(callback, period = 0, ...rest) {
    const id = every(callback, period, ...rest);
    if (typeof callback === "function" && period <= SHORT_MS) ticking.set(id, () => callback(...rest));
    return id;
  };
  for (const [place, name] of ["clearInterval", "clearTimeout"].entries())
    window[name] = function clear(id) {
      ticking.delete(id);
      return stops[place].call(window, id);
    };
  state.keepsLooking = () => ticking.size > 0 || state.sinceStart() - askedAt < LOOP_MS;
  state.stepMovement = () => {
    for (const tick of ticking.values())
      try {
        tick();
      } catch (error) {
        state.wait(() => reportError(error), 0);
      }
  };
  /** What was done for a picture, each as the function that undoes it. */
  let undoing = null;
  const halt = (animation) => {
    const { effect, timeline } = animation;
    if (window.ViewTimeline && timeline instanceof ViewTimeline) {
      /* Driven by where the element is in the window: shown as it is in the window's middle. */
      const { fill } = effect.getTiming();
      effect.updateTiming({ fill: "both" });
      animation.pause();
      animation.currentTime = CSS.percent(50);
      undoing?.push(() => {
        effect.updateTiming({ fill });
        animation.play();
      });
    } else if (Number.isFinite(effect?.getComputedTiming().endTime) && timeline instanceof DocumentTimeline) {
      animation.finish(); /* it ends soon in any case */
    } else if (animation.playState === "running") {
      animation.pause();
      undoing?.push(() => animation.play());
    }
  };
  state.endAnimations = () => {
    for (const root of state.roots())
      for (const animation of root.getAnimations())
        try {
          halt(animation);
        } catch {
          /* an animation without a target cannot be halted, and shows nothing */
        }
  };
  const putBack = ({ target, attributeName: name, oldValue }) => {
    /* A page's content policy may forbid the attribute, and allows the style. */
    if (name === "style" && target.style) target.style.cssText = oldValue ?? "";
    if (oldValue === null) target.removeAttribute(name);
    else if (name !== "style") target.setAttribute(name, oldValue);
  };
  const noteScrolled = () => {
    const places = [[window, window.scrollX, window.scrollY]];
    for (const root of state.roots())
      for (const element of root.querySelectorAll("*"))
        if (element.scrollTop || element.scrollLeft) places.push([element, element.scrollLeft, element.scrollTop]);
    undoing.push(() => {
      for (const [place, left, top] of places) place.scrollTo({ left, top, behavior: "instant" });
    });
  };
  const notePlaying = () => {
    for (const media of document.querySelectorAll("audio, video"))
      if (!media.paused) undoing.push(() => media.play().catch(nothing));
  };
  state.isTaking = () => undoing !== null;
  const holderIsTaking = () => {
    try {
      return window.parent !== window && window.parent[Symbol.for("capture")].isTaking();
    } catch {
      return false; /* a frame of another site */
    }
  };
  /** From now on changes are noted. */
  state.beginTaking = () => {
    undoing = [];
    noteScrolled();
    notePlaying();
  };
  /** Does one script's work, and notes what it does at once to the page's elements. */
  state.noted = (work) => {
    if (!undoing && holderIsTaking()) state.beginTaking();
    if (!undoing) return work();
    const roots = state.roots();
    const sheets = roots.map((root) => [...root.adoptedStyleSheets]);
    const observer = new MutationObserver(nothing);
    for (const root of roots) observer.observe(root, NOTED);
    const result = work();
    if (!undoing) return result; /* it has just been undone */
    for (const record of observer.takeRecords()) undoing.push(() => putBack(record));
    observer.disconnect();
    for (const [index, root] of roots.entries()) {
      const added = root.adoptedStyleSheets.filter((sheet) => !sheets[index].includes(sheet));
      if (added.length)
        undoing.push(() => (root.adoptedStyleSheets = root.adoptedStyleSheets.filter((sheet) => !added.includes(sheet))));
    }
    return result;
  };
  /** The page as it was, from the last change to the first. */
  state.endTaking = () => {
    for (const undo of (undoing ?? []).reverse()) undo();
    undoing = null;
    state.walking = false;
    state.scroller = state.panel = state.layer = null;
  };
  /* What a page asks of its visitor is refused by the browser; the person is told of it. */
  const tell = (what) => console.debug(`${Symbol.for("capture").description}:asked`, what);
  const telling = (owner, name, what) => {
    const own = owner?.[name];
    if (typeof own !== "function") return;
    owner[name] = function asked(...values) {
      tell(what);
      return Reflect.apply(own, this, values);
    };
  };
  telling(window.Geolocation?.prototype, "getCurrentPosition", "where you are");
  telling(window.Geolocation?.prototype, "watchPosition", "where you are");
  telling(window.Notification, "requestPermission", "to show notifications");
  telling(window.MediaDevices?.prototype, "getUserMedia", "for camera or microphone");
  telling(window.MediaDevices?.prototype, "getDisplayMedia", "to see your screen");
  telling(window.Clipboard?.prototype, "read", "to read the clipboard");
  telling(window.Clipboard?.prototype, "readText", "to read the clipboard");
})();
