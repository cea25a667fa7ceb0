/*
 * Runs before the page's own scripts: what a person points at, and how it can be found again. Each way
 * is a step's target, the one that says most to a person first; which of them finds it is tried outside.
 */
(() => {
  const state = window[Symbol.for("capture")];
  const USED = "a[href], button, input, select, textarea, label, summary, option, [role], [onclick], [tabindex], [contenteditable]";
  const FIELD = "input, textarea, select, [contenteditable]";
  const MOST_CHARS = 60;
  const MOST_WAYS = 8;
  const PATH_DEPTH = 6;
  state.elementAt = (x, y) => {
    let found = document.elementFromPoint(x, y);
    for (let root = found && state.shadowOf(found); root; root = found && state.shadowOf(found)) {
      const inner = root.elementFromPoint(x, y);
      if (!inner || inner === found) break;
      found = inner;
    }
    return found;
  };
  const outer = (element, selector) => {
    for (let one = element; one; one = state.parentOf(one)) if (one.matches(selector)) return one;
    return null;
  };
  const wordsOf = (element) => (element.innerText || element.getAttribute?.("value") || "").replace(/\s+/g, " ").trim();
  const quoted = (value) => `"${value.replace(/["\\]/g, "\\$&")}"`;
  const pathTo = (element) => {
    const parts = [];
    for (let one = element; one && one.localName !== "html" && parts.length < PATH_DEPTH; one = state.parentOf(one)) {
      if (one.id && !/\d{3}/.test(one.id)) {
        parts.unshift(`#${CSS.escape(one.id)}`);
        break;
      }
      const alike = [...(one.parentNode?.children ?? [])].filter((sibling) => sibling.localName === one.localName);
      parts.unshift(CSS.escape(one.localName) + (alike.length > 1 ? `:nth-of-type(${alike.indexOf(one) + 1})` : ""));
    }
    return parts.join(" > ");
  };
  /** Targets that may lead to an element, and the element itself for whoever tries them. */
  state.waysTo = (element) => {
    const ways = [];
    const field = element.matches(FIELD);
    const words = wordsOf(element);
    if (!field && words && words.length <= MOST_CHARS && !/["“”„]/.test(words)) ways.push(`"${words}"`);
    if (element.id && !/\d{3}/.test(element.id)) ways.push(`#${CSS.escape(element.id)}`);
    for (const name of ["name", "aria-label", "data-testid", "placeholder", "title", "href"]) {
      const value = element.getAttribute(name);
      if (value && value.length <= 200) ways.push(`${element.localName}[${name}=${quoted(value)}]`);
    }
    ways.push(pathTo(element));
    return ways.slice(0, MOST_WAYS);
  };
  /** What would be used by a click there: a link with what is in it, a button, or the very element. */
  state.usedAt = (x, y) => {
    const found = state.elementAt(x, y);
    return found && (outer(found, USED) ?? found);
  };
  /** What has the focus, through shadow roots. */
  state.focused = () => {
    let found = document.activeElement;
    for (let root = found && state.shadowOf(found); root?.activeElement; root = state.shadowOf(found)) found = root.activeElement;
    return found === document.body || found === document.documentElement ? null : found;
  };
  const labelOf = (element) =>
    element.getAttribute("aria-label") || [...(element.labels ?? [])].map(wordsOf).join(" ") || element.getAttribute("placeholder") || element.title || wordsOf(element);
  const kindOf = (element) => element.getAttribute("role") || (element.localName === "input" ? element.type : element.localName);
  /* Some pages show a password as text, and call it one all the same. */
  const isSecret = (element) =>
    element.localName === "input" && (element.type === "password" || /password|one-time-code|cc-(number|csc)/.test(element.autocomplete));
  /** An element as it is told of. A password is never told. */
  state.described = (element) => {
    const box = element.getBoundingClientRect();
    const secret = isSecret(element);
    const typed = element.matches(FIELD) && element.localName !== "select" && !/^(checkbox|radio|button|submit|reset|file|image|range|color)$/.test(element.type);
    return {
      ways: state.waysTo(element),
      words: secret ? "" : wordsOf(element).slice(0, MOST_CHARS),
      label: (secret ? element.getAttribute("aria-label") || [...element.labels].map(wordsOf).join(" ") : labelOf(element)).slice(0, MOST_CHARS),
      kind: kindOf(element),
      secret,
      typed,
      inFrame: /^i?frame$/.test(element.localName),
      options: element.localName === "select" && !element.multiple && element.size <= 1 ? [...element.options].map((option) => option.label) : null,
      chosen: element.selectedIndex ?? -1,
      value: secret || !typed ? "" : (element.value ?? element.innerText ?? ""),
      xPx: box.left,
      yPx: box.top,
      widthPx: box.width,
      heightPx: box.height,
    };
  };
  /** How many words are to be seen in the window. */
  state.wordsSeen = () => {
    let words = 0;
    for (const { node, text, box } of state.textsIn(document.body ?? document.documentElement))
      if (box.bottom > 0 && box.top < window.innerHeight && box.right > 0 && box.left < window.innerWidth)
        if (node.parentElement?.checkVisibility({ opacityProperty: true, visibilityProperty: true })) words += state.countWords(text);
    return words;
  };
})();
