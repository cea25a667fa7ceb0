/*
 * The visible blocks of the page with their boxes (CSS px from the page's top left corner), from
 * outer to inner: what they are, what they say, where they lead, and which elements they lie in.
 */
({ mostBlocks, mostChars }) => {
  const ROLES = {
    h1: "heading", h2: "heading", h3: "heading", h4: "heading", h5: "heading", h6: "heading",
    p: "paragraph", blockquote: "quote", pre: "code", table: "table", tr: "row", ul: "list", ol: "list", dl: "list",
    nav: "navigation", section: "section", article: "section", aside: "section", main: "section",
    header: "header", footer: "footer", form: "form", figure: "figure", img: "image", picture: "image",
    video: "video", canvas: "image", iframe: "frame", button: "button", fieldset: "form",
  };
  const MOST_PATH_CHARS = 2_000; /* then the outermost are left out */
  const state = window[Symbol.for("capture")];
  /* In a frame, boxes count from the upper left corner of the page that holds it. */
  const place = state.frameOffset ?? { x: window.scrollX, y: window.scrollY };
  const blocks = [];
  const paths = new Map();
  for (const root of state.roots()) {
    for (const element of root.querySelectorAll("*")) {
      if (blocks.length >= mostBlocks) continue;
      const name = element.localName;
      const own = [...element.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.data.trim());
      const role = ROLES[name] || (own && isBlock(element) ? "text" : name === "li" ? "item" : "");
      if (!role) continue;
      if (!element.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
      const box = element.getBoundingClientRect();
      if (box.width < 4 || box.height < 4) continue;
      blocks.push({
        role,
        level: role === "heading" ? Number(name[1]) : null,
        x_px: box.left + place.x,
        y_px: box.top + place.y,
        width_px: box.width,
        height_px: box.height,
        text: (element.innerText || "").replace(/\s+/g, " ").trim().slice(0, mostChars),
        link: element.closest("a")?.href || "",
        alt: element.getAttribute("alt") || element.getAttribute("aria-label") || "",
        path: pathTo(element),
      });
    }
  }
  return blocks;

  /** An element in those that it lies in, by name, id and classes: `body > main#content > table.fares`. */
  function pathTo(element) {
    if (!paths.has(element)) {
      const outer = element.parentElement && element.parentElement.localName !== "html" ? `${pathTo(element.parentElement)} > ` : "";
      const classes = [...element.classList].filter(isShort).slice(0, 6).map((name) => `.${CSS.escape(name)}`);
      const id = element.id && isShort(element.id) ? `#${CSS.escape(element.id)}` : "";
      const whole = outer + CSS.escape(element.localName.slice(0, 60)) + id + classes.join("");
      paths.set(element, whole.length > MOST_PATH_CHARS ? whole.slice(whole.indexOf(" > ") + 3) : whole);
    }
    return paths.get(element);
  }

  function isShort(name) {
    return name.length <= 80;
  }

  function isBlock(element) {
    return !/^(inline|contents|none)/.test(getComputedStyle(element).display) && element.localName !== "body";
  }
}
