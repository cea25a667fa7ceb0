/*
 * Runs in every frame before the page's own scripts. It notes whether the page watches what comes
 * into view or how far it is scrolled: one that does not need not be walked through. Once the walk
 * has begun, whatever was shown because it came into view stays shown: observers hear of arrivals,
 * not of departures. And as the walk takes big steps quickly, the page's clock goes with the steps:
 * a handler that only looks every so often looks at every step, and what the page meant to do in
 * the next two seconds is done when the walk begins. While a list is taken step by step its timers
 * have their time again: two bars that follow each other tell by it who leads.
 */
(() => {
  const SOON_MS = 10;
  const THROTTLE_MS = 500;
  const SHORTLY_MS = 300;
  const LOOK_AHEAD_MS = 2_000;
  const wait = window.setTimeout.bind(window);
  const state = { walking: false, watching: false, listening: false, wheeling: false, scroller: null, aheadMs: 0, removed: 0, wait };
  Object.defineProperty(window, Symbol.for("capture"), { value: state });
  const noteWatching = () => {
    state.watching = true;
    try {
      if (window.top !== window) window.top[Symbol.for("capture")].watching = true;
    } catch {
      /* a frame of another site: its window cannot be told */
    }
  };
  const listen = EventTarget.prototype.addEventListener;
  // A Chromium without windows begins with its pointer at 0, 0: nobody pointed there.
  const unasked = (event) => {
    if (event.isTrusted && event.clientX === 0 && event.clientY === 0) event.stopImmediatePropagation();
  };
  for (const place of ["over", "enter", "move"]) {
    listen.call(window, `mouse${place}`, unasked, true);
    listen.call(window, `pointer${place}`, unasked, true);
  }
  EventTarget.prototype.addEventListener = function addEventListener(type, ...rest) {
    if (type === "scroll" || type === "scrollend" || type === "wheel" || type === "touchmove") {
      state.listening = true;
      state.wheeling ||= type === "wheel";
      noteWatching();
    }
    return listen.call(this, type, ...rest);
  };
  /* Shadow roots, the closed ones too: element -> root. */
  const shadows = new WeakMap();
  const attach = Element.prototype.attachShadow;
  Element.prototype.attachShadow = function attachShadow(options) {
    const root = attach.call(this, options);
    shadows.set(this, root);
    return root;
  };
  state.shadowOf = (element) => shadows.get(element) ?? element.shadowRoot;
  /** The document and every shadow root in it, from outer to inner. */
  state.roots = () => {
    const roots = [document];
    for (let index = 0; index < roots.length; index += 1)
      for (const element of roots[index].querySelectorAll("*")) {
        const shadow = state.shadowOf(element);
        if (shadow) roots.push(shadow);
      }
    return roots;
  };
  /** What an element is laid out in: its slot, its parent, or the host of its shadow root. */
  state.parentOf = (element) => {
    const parent = element.assignedSlot ?? element.parentNode;
    return parent instanceof ShadowRoot ? parent.host : parent instanceof Element ? parent : null;
  };
  /** The texts in an element or root, each with its box in the window; shadow roots within included. */
  state.textsIn = function* textsIn(place) {
    const nodes = document.createTreeWalker(place, NodeFilter.SHOW_TEXT | NodeFilter.SHOW_ELEMENT);
    const range = document.createRange();
    const inner = place instanceof Element && state.shadowOf(place);
    if (inner) yield* textsIn(inner);
    for (let node = nodes.nextNode(); node; node = nodes.nextNode()) {
      if (node.nodeType === Node.ELEMENT_NODE) {
        const shadow = state.shadowOf(node);
        if (shadow) yield* textsIn(shadow);
      } else if (node.data.trim() && !/^(script|style|noscript|title)$/.test(node.parentNode.localName ?? "")) {
        range.selectNodeContents(node);
        const box = range.getBoundingClientRect();
        if (box.width > 0 && box.height > 0) yield { node, text: node.data.trim(), box };
      }
    }
  };
  /** Words of a text; of a script that does not part them, two signs count as one. */
  state.countWords = (text) => {
    if (!/[^\x00-\x7f]/.test(text)) return text.match(/[A-Za-z0-9]+/g)?.length ?? 0;
    const unparted = text.match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/gu)?.length ?? 0;
    const parted = text.match(/[\p{L}\p{N}]+/gu)?.length ?? 0;
    return unparted ? Math.ceil(unparted / 2) : parted;
  };
  state.idle = window.requestIdleCallback.bind(window);
  /* Timers of the near future, so that they can be brought forward; id given to the page -> what was set. */
  const pending = new Map();
  const start = (id, timer, delay) => {
    timer.id = wait(() => {
      pending.delete(id ?? timer.id);
      timer.run();
    }, delay);
    return timer.id;
  };
  window.setTimeout = function setTimeout(callback, delay = 0, ...rest) {
    if (typeof callback !== "function" || delay > LOOK_AHEAD_MS) return wait(callback, delay, ...rest);
    const short = state.walking && !state.stepping && delay > SOON_MS && delay <= THROTTLE_MS;
    const timer = { run: () => callback(...rest), delay };
    const id = start(null, timer, short ? SOON_MS : delay);
    pending.set(id, timer);
    return id;
  };
  const stop = window.clearTimeout.bind(window);
  window.clearTimeout = function clearTimeout(id) {
    stop(pending.get(id)?.id ?? id);
    pending.delete(id);
  };
  state.lookAhead = () => {
    state.aheadMs += LOOK_AHEAD_MS;
    for (const [id, timer] of pending) {
      stop(timer.id);
      start(id, timer, 0);
    }
  };
  /** Whether something is about to happen by a timer. */
  state.isWaiting = () => [...pending.values()].some((timer) => timer.delay <= SHORTLY_MS);
  const RealDate = window.Date;
  const ahead = () => RealDate.now() + state.aheadMs;
  window.Date = new Proxy(RealDate, {
    construct: (target, values, made) => Reflect.construct(target, values.length ? values : [ahead()], made),
    apply: () => new RealDate(ahead()).toString(),
    get: (target, name) => (name === "now" ? ahead : Reflect.get(target, name)),
  });
  const sinceStart = performance.now.bind(performance);
  performance.now = () => sinceStart() + state.aheadMs;
  state.sinceStart = sinceStart;
  const Native = window.IntersectionObserver;
  if (!Native) return;
  window.IntersectionObserver = class IntersectionObserver extends Native {
    constructor(callback, options) {
      super((entries, observer) => {
        const heard = state.walking ? entries.filter((entry) => entry.isIntersecting) : entries;
        if (heard.length) callback.call(observer, heard, observer);
      }, options);
    }
    observe(target) {
      noteWatching();
      return super.observe(target);
    }
  };
})();
