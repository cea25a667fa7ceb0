/*
 * The words of the page with their boxes (CSS px from the page's top left corner), in the order of its
 * text: runs of words that belong together, as `[text, joined, left, top, width, height, ...]` for each
 * word. A word that is broken over two lines has two boxes. `joined` says that no space stands before it.
 * What somebody typed into a field counts, but for passwords. With them, where the links of the page lead,
 * as `[address, left, top, width, height, ...]`, and its language. With `betweenPx`, only what begins
 * between two heights of the page.
 */
({ mostWords, mostLinks, betweenPx }) => {
  const state = window[Symbol.for("capture")];
  const place = state.frameOffset ?? { x: window.scrollX, y: window.scrollY };
  /* Signs of scripts that do not part words are words of their own. */
  const WORDS = /[\u3040-\u30ff\u3400-\u9fff\uf900-\ufaff\u0e00-\u0e7f]|[^\s\u3040-\u30ff\u3400-\u9fff\uf900-\ufaff\u0e00-\u0e7f]+/g;
  const range = document.createRange();
  const clips = new Map();
  const shown = new Map();
  const runs = [];
  let count = 0;
  let run = null;
  let holder = null;
  let last = null;
  const isWanted = (box) => {
    if (!betweenPx) return true;
    const top = box.top + place.y;
    return top < betweenPx[1] && top + (box.bottom - box.top) > betweenPx[0];
  };
  const begins = (box) => !betweenPx || (box.top + place.y >= betweenPx[0] && box.top + place.y < betweenPx[1]);
  for (const { node, box: around } of state.textsIn(document.body ?? document.documentElement)) {
    const element = state.parentOf(node);
    if (!isWanted(around) || !element || !isShown(element)) continue;
    const block = blockOf(element);
    if (block !== holder || !run) {
      run = [];
      runs.push(run);
      holder = block;
      last = null;
    }
    for (const match of node.data.matchAll(WORDS)) {
      if (count >= mostWords) return found();
      range.setStart(node, match.index);
      range.setEnd(node, match.index + match[0].length);
      const boxes = within([...range.getClientRects()], clipOf(element));
      if (!boxes.length || !begins(boxes[0])) continue;
      const spaced = /\s/.test(node.data[match.index - 1] ?? "");
      const joined = last !== null && !spaced && (last.node === node || touches(last.box, boxes[0]));
      run.push([match[0], joined, ...boxes.flatMap(onPage)]);
      last = { node, box: boxes.at(-1) };
      count += 1;
    }
  }
  for (const root of state.roots())
    for (const field of root.querySelectorAll("input, textarea, select")) {
      const said = saidIn(field);
      if (!said || !isShown(field)) continue;
      const boxes = within([field.getBoundingClientRect()], clipOf(field));
      if (boxes.length && begins(boxes[0])) runs.push([[said, false, ...boxes.flatMap(onPage)]]);
    }
  return found();

  function found() {
    const language = document.documentElement.lang.trim();
    return { runs: runs.filter((row) => row.length), links: links(), language: /^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(language) ? language : "" };
  }

  function links() {
    const rows = [];
    for (const root of state.roots())
      for (const link of root.querySelectorAll("a[href]")) {
        if (rows.length >= mostLinks) return rows;
        if (!/^(https?|mailto|tel):/.test(link.href) || link.href.length > 4_000 || !isShown(link)) continue;
        range.selectNodeContents(link);
        const boxes = outermost(within([...link.getClientRects(), ...range.getClientRects()], clipOf(link)));
        if (boxes.length && begins(boxes[0])) rows.push([link.href, ...boxes.slice(0, 40).flatMap(onPage)]);
      }
    return rows;
  }

  /** Boxes but for those that lie in another. */
  function outermost(boxes) {
    const holds = (outer, inner) =>
      outer.left <= inner.left && outer.top <= inner.top && outer.right >= inner.right && outer.bottom >= inner.bottom;
    return boxes.filter((box, at) => !boxes.some((other, place) => place !== at && holds(other, box) && (place < at || !holds(box, other))));
  }

  function saidIn(field) {
    if (field.localName === "select") return field.selectedOptions[0]?.text.trim() ?? "";
    if (/^(password|hidden|checkbox|radio|range|color|file|image)$/.test(field.type)) return "";
    return (field.value || field.placeholder || "").trim();
  }

  function onPage(box) {
    return [box.left + place.x, box.top + place.y, box.right - box.left, box.bottom - box.top];
  }

  function touches(before, after) {
    const sameLine = Math.min(before.bottom, after.bottom) - Math.max(before.top, after.top) > 2;
    return sameLine && Math.abs(after.left - before.right) < 1.5;
  }

  function within(boxes, clip) {
    return boxes
      .map((box) => ({
        left: Math.max(box.left, clip.left),
        top: Math.max(box.top, clip.top),
        right: Math.min(box.right, clip.right),
        bottom: Math.min(box.bottom, clip.bottom),
      }))
      .filter((box) => box.right - box.left >= 1 && box.bottom - box.top >= 2);
  }

  function isShown(element) {
    if (!shown.has(element)) shown.set(element, element.checkVisibility({ opacityProperty: true, visibilityProperty: true }));
    return shown.get(element);
  }

  /** What of the window an element can be seen through: all that it lies in cuts off a part. */
  function clipOf(element) {
    const before = clips.get(element);
    if (before) return before;
    const parent = state.parentOf(element);
    const outer = parent ? clipOf(parent) : { left: -Infinity, top: -Infinity, right: Infinity, bottom: Infinity };
    const style = getComputedStyle(element);
    const cuts = style.overflowX !== "visible" && element !== document.body && element !== document.documentElement;
    let own = outer;
    if (cuts) {
      const box = element.getBoundingClientRect();
      own = {
        left: Math.max(outer.left, box.left),
        top: Math.max(outer.top, box.top),
        right: Math.min(outer.right, box.right),
        bottom: Math.min(outer.bottom, box.bottom),
      };
    }
    clips.set(element, own);
    return own;
  }

  function blockOf(element) {
    let at = element;
    while (at.parentElement && /^(inline|contents|ruby)/.test(getComputedStyle(at).display)) at = at.parentElement;
    return at;
  }
}
