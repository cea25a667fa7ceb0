/*
 * Scrolls what scrolls to a place (or stays, with `top` null) and waits until what is seen there has
 * come to rest: words, pictures and their places the same over two drawings, nothing about to
 * happen, and no blank where rows belong. With `glance` it only looks; with `moving` it brings
 * movement to its end. Tells what is seen, in CSS px from the upper left corner of what scrolls.
 */
async ({ top, restMs, mostMs, moving, glance }) => {
  const state = window[Symbol.for("capture")];
  const LEAST_BLANK_PX = 48;
  const BLANK_FOR_MS = 1_200; /* a stretch that stays empty so long is empty */
  const TIMERS_FOR_MS = 600; /* who still sets timers then does so for ever */
  const scroller = state.scroller;
  const page = scroller || document.scrollingElement || document.documentElement;
  const frame = () =>
    new Promise((resolve) => {
      state.frame(() => state.wait(resolve, 0));
      state.wait(resolve, 150);
    });
  const idle = () => new Promise((resolve) => state.idle(resolve, { timeout: 1_000 }));
  if (glance) return look();
  state.stepping = true;
  state.placesBefore = state.places;
  if (top !== null) (scroller || window).scrollTo({ top, left: 0, behavior: "instant" });
  const since = state.sinceStart();
  const passedMs = () => state.sinceStart() - since;
  let last = "";
  let sameSince = 0;
  let seen;
  for (let rested = false; !rested; ) {
    await frame();
    if (moving) {
      state.endAnimations();
      state.lookAhead();
      state.finishMovement();
    }
    state.stepMovement();
    await frame();
    await idle();
    seen = look();
    const now = JSON.stringify(seen);
    if (now !== last) sameSince = state.sinceStart();
    const sameMs = state.sinceStart() - sameSince;
    const waiting = state.isWaiting() && passedMs() < TIMERS_FOR_MS;
    rested = now === last && !waiting && sameMs >= restMs && (sameMs >= BLANK_FOR_MS || !hasBlank(seen));
    last = now;
    if (!rested && passedMs() > mostMs) break;
  }
  return seen;

  function look() {
    const view = viewBox();
    const pieces = [];
    state.places = new Map();
    for (const { node, text, box } of state.textsIn(scroller || document.body))
      if (box.bottom > view.top && box.top < view.bottom && isShown(node.parentElement))
        pieces.push(piece(node, text.slice(0, 80), box, view));
    for (const root of state.roots())
      for (const element of (root === document && scroller ? scroller : root).querySelectorAll("img,svg,canvas,video,input,b,i")) {
        if (element.localName.length === 1 && (element.firstChild || !element.getAttribute("style"))) continue;
        const box = element.getBoundingClientRect();
        if (box.width < 4 || box.height < 4 || box.bottom <= view.top || box.top >= view.bottom || !isShown(element)) continue;
        pieces.push(piece(element, `<${element.localName} ${element.currentSrc || element.getAttribute("style") || element.id}`.slice(0, 160), box, view));
      }
    return {
      topPx: Math.round(scroller ? scroller.scrollTop : window.scrollY),
      contentPx: page.scrollHeight,
      viewPx: Math.round(view.bottom - view.top),
      pieces,
    };
  }

  function piece(node, words, box, view) {
    const place = [rounded(box.left - view.left), rounded(box.top - view.top), rounded(box.height)];
    state.places.set(node, place.join());
    return [words, ...place];
  }

  function isShown(element) {
    return !element || element.checkVisibility({ visibilityProperty: true, opacityProperty: true });
  }

  function rounded(px) {
    return Math.round(px * 4) / 4;
  }

  function viewBox() {
    if (!scroller) return { left: 0, top: 0, bottom: window.innerHeight, right: window.innerWidth };
    const box = scroller.getBoundingClientRect();
    const left = box.left + scroller.clientLeft;
    const topPx = box.top + scroller.clientTop;
    return { left, top: topPx, right: left + scroller.clientWidth, bottom: topPx + scroller.clientHeight };
  }

  /** Whether a stretch shows only what lies behind all rows. */
  function hasBlank({ pieces }) {
    const view = viewBox();
    const behind = behindAll(view);
    if (pieces.length === 0) return true;
    if (state.textsCompared < 2) return false;
    const heights = pieces.map(([, , , height]) => height).sort((a, b) => a - b);
    const mostPx = Math.max(LEAST_BLANK_PX, 2 * heights[heights.length >> 1]);
    const columns = [0.2, 0.5, 0.8].map((share) => view.left + (view.right - view.left) * share);
    const lowest = Math.min(view.bottom, window.innerHeight) - 1;
    let blankPx = 0;
    for (let y = Math.max(view.top, 0) + 1; y < lowest; y += 8) {
      const covered = columns.some((x) => {
        const hit = deepest(x, y);
        return hit && !behind.has(hit);
      });
      blankPx = covered ? 0 : blankPx + 8;
      if (blankPx >= mostPx) return true;
    }
    return false;
  }

  /** The elements that hold every word that was ever seen, from the innermost outwards. */
  function behindAll(view) {
    const behind = new Set();
    let common = state.common;
    state.textsCompared ??= 0;
    for (const { node, box } of state.textsIn(scroller || document.body)) {
      if (box.bottom <= view.top || box.top >= view.bottom) continue;
      const chain = new Set();
      for (let outer = node.parentElement; outer; outer = state.parentOf(outer)) chain.add(outer);
      common = common ? new Set([...common].filter((element) => chain.has(element))) : chain;
      state.textsCompared += 1;
    }
    state.common = common;
    for (const element of common ?? []) behind.add(element);
    for (let outer = scroller || document.documentElement; outer; outer = state.parentOf(outer)) behind.add(outer);
    return behind;
  }

  function deepest(x, y) {
    let hit = document.elementFromPoint(x, y);
    for (let shadow = hit && state.shadowOf(hit); shadow; shadow = hit && state.shadowOf(hit)) {
      const inner = shadow.elementFromPoint(x, y);
      if (!inner || inner === hit) break;
      hit = inner;
    }
    return hit;
  }
}
