/*
 * The words that the page has laid out, and whether they are where the picture will show them: for
 * those that are, their places (CSS px from the page's top left corner); for those that are not, what
 * keeps them from it. Words that nobody meets by scrolling (menus, tabs, closed sections, navigation
 * that scrolls by itself) do not count. `areaPx` is what is taken, null for a frame that shows its own
 * first screen. Of a page that is moved while it is taken, what was `seen` on the way is in the picture;
 * with `cutOff`, what it would still scroll to is left out on purpose.
 */
({ areaPx, seen, cutOff }) => {
  const state = window[Symbol.for("capture")];
  const FIRST_CHARS = 80;
  const OFF_PX = -900; /* what is put so far up or left is put away */
  const view = { width: window.innerWidth, height: window.innerHeight };
  const page = document.scrollingElement || document.documentElement;
  const found = { words: 0, shown: [], lacking: [], pictures: 0 };
  if (!page || (!areaPx && (view.width < 40 || view.height < 40))) return found;
  if (!areaPx && isNavigation(document.body ?? page)) return found;
  const area = areaPx ?? { top: 0, bottom: view.height, right: view.width };
  const none = { menu: false, clear: false, hidden: false, faint: false, away: false, top: -Infinity, bottom: Infinity, right: Infinity, wide: null, holder: null, kind: "" };
  const known = new Map();
  const lacking = new Map();
  state.shownTexts = [];
  const seenOnTheWay = new Set(seen);
  for (const { node, text, box } of state.textsIn(document.body ?? page)) {
    const around = node.parentElement ? stateOf(node.parentElement) : none;
    if (around.menu || (around.away && !seenOnTheWay.has(text.slice(0, FIRST_CHARS)))) continue;
    const top = box.top + window.scrollY;
    const bottom = box.bottom + window.scrollY;
    const left = box.left + window.scrollX;
    if (bottom <= OFF_PX || left + box.width <= 0 || bottom <= 0) continue;
    if (left >= area.right && !around.wide) continue;
    const words = state.countWords(text);
    if (words === 0) continue;
    const why = seenOnTheWay.has(text.slice(0, FIRST_CHARS))
      ? ""
      : around.faint
      ? "see_through"
      : top >= around.bottom - 1 || bottom <= around.top + 1
        ? around.kind
        : top >= area.bottom || bottom <= area.top
          ? areaPx
            ? "outside"
            : "frame"
          : left >= around.right
            ? "beside"
            : "";
    if (why === "collapsed") continue;
    found.words += words;
    if (!why) {
      state.shownTexts.push(text);
      found.shown.push([Math.round(left), Math.round(top), Math.ceil(box.width), Math.ceil(box.height), words]);
    }
    else lacks(why, words, text, why === "beside" ? around.wide : around.holder);
  }
  for (const { element, words } of state.leftOut ?? []) {
    const text = (element.textContent || "").trim().replace(/\s+/g, " ");
    if (words > 0 && !isNavigation(element) && !/cookie|consent|privacy/i.test(text)) lacks("layer", words, text, element);
  }
  for (const root of state.roots())
    for (const picture of root.querySelectorAll("img, svg, canvas, video, iframe, object, embed")) {
      const box = picture.getBoundingClientRect();
      if (box.width * box.height > 900) found.pictures += 1;
    }
  found.lacking = [...lacking.values()].map((row) => ({ ...row, first: row.first.trim() }));
  return found;

  function lacks(why, words, text, holder) {
    const key = holder ?? why;
    const row = lacking.get(key) ?? { why, words: 0, first: "", target: holder ? pathOf(holder) : "" };
    row.words += words;
    if (row.first.length < FIRST_CHARS) row.first = cut(`${row.first} ${text}`.trim().replace(/\s+/g, " "));
    lacking.set(key, row);
  }

  /** The first words of a text, the last of them whole; where it was cut off, three dots say so. */
  function cut(text) {
    if (text.length <= FIRST_CHARS) return text;
    return `${text.slice(0, FIRST_CHARS).replace(/\s+\S*$/, "")}…`.padEnd(FIRST_CHARS);
  }

  /** What an element and all that it lies in do to the words in it. */
  function stateOf(element) {
    const before = known.get(element);
    if (before) return before;
    const parent = state.parentOf(element);
    const outer = parent ? stateOf(parent) : none;
    const own = outer.menu ? outer : changed(element, outer);
    known.set(element, own);
    return own;
  }

  function changed(element, outer) {
    if (isMenu(element) || !element.checkVisibility()) return { ...outer, menu: true };
    const style = getComputedStyle(element);
    const clear = outer.clear || style.opacity === "0";
    const hidden = style.visibility !== "visible";
    const begins = (clear && !outer.clear) || (hidden && !outer.hidden);
    /* What waits on top of something else, or was put away, waits for a person to ask for it. */
    const away = begins ? floats(element) || isLeftOut(element) : (clear || hidden) && outer.away;
    const now = { ...outer, clear, hidden, away, faint: (clear || hidden) && !away };
    const onPurpose = element === page || element === document.body || (cutOff && element === state.scroller);
    const mayCut = style.overflowY !== "visible" && !onPurpose;
    const wide = mayCut && rollsSideways(element, style);
    if (wide) now.right = Math.min(now.right, element.getBoundingClientRect().left + window.scrollX + element.clientWidth);
    if (wide) now.wide = element;
    return mayCut && cuts(element) ? clipped(element, style, now) : now;
  }

  /** Whether an element lies on top of the page, rather than in its flow. */
  function floats(element) {
    for (let at = element, depth = 0; at && depth < 3; at = state.parentOf(at), depth += 1) {
      const box = at.getBoundingClientRect();
      if (/absolute|fixed/.test(getComputedStyle(at).position) && box.height < view.height * 0.9) return true;
    }
    return false;
  }

  function cuts(element) {
    return element.scrollHeight > element.clientHeight + 4;
  }

  /** Whether most of the window is a thing that is scrolled sideways; code and tables often are, a little. */
  function rollsSideways(element, style) {
    if (!/auto|scroll|overlay/.test(style.overflowX) || element.scrollWidth <= element.clientWidth + 40) return false;
    return element.clientWidth > view.width * 0.5 && element.clientHeight > view.height * 0.5;
  }

  function clipped(element, style, outer) {
    const box = element.getBoundingClientRect();
    const top = box.top + window.scrollY + element.clientTop;
    const bottom = top + element.clientHeight;
    if (top <= outer.top && bottom >= outer.bottom) return outer;
    const rolls = /auto|scroll|overlay/.test(style.overflowY);
    const large = element.clientHeight >= view.height * 0.35 && element.clientWidth >= view.width * 0.4;
    const kind = rolls ? (element.clientHeight >= 80 && !isNavigation(element) ? "panel" : "collapsed") : large ? "locked" : "collapsed";
    const narrower = { ...outer, kind, holder: element };
    narrower.top = Math.max(top, outer.top);
    narrower.bottom = Math.min(bottom, outer.bottom);
    return narrower;
  }

  function isMenu(element) {
    return (
      /^(nav|select|textarea|option|datalist|noscript|template|dialog)$/.test(element.localName) ||
      /^(navigation|menu|menubar|listbox|tree|tablist|combobox|search)$/.test(element.getAttribute("role") ?? "") ||
      element.getAttribute("aria-hidden") === "true" ||
      element.inert
    );
  }

  /** A list of links that scrolls by itself leads somewhere; it is not what the page says. */
  function isNavigation(element) {
    const all = (element.textContent || "").length;
    let linked = 0;
    for (const link of element.querySelectorAll("a, button, label")) linked += (link.textContent || "").length;
    return element.localName === "aside" || linked > all * 0.6;
  }

  function isLeftOut(element) {
    return (state.leftOut ?? []).some((row) => row.element === element || row.element.contains(element));
  }

  /** A CSS selector that leads to an element, where one can. */
  function pathOf(element) {
    const steps = [];
    for (let at = element; at instanceof Element && at !== document.documentElement; at = at.parentElement) {
      if (at.id && document.querySelectorAll(`#${CSS.escape(at.id)}`).length === 1) {
        steps.unshift(`#${CSS.escape(at.id)}`);
        return steps.join(" > ");
      }
      const same = [...(at.parentElement?.children ?? [])].filter((other) => other.localName === at.localName);
      steps.unshift(same.length > 1 ? `${at.localName}:nth-of-type(${same.indexOf(at) + 1})` : at.localName);
    }
    return element.getRootNode() === document ? steps.join(" > ") : "";
  }
}
