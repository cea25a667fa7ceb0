/*
 * The visible blocks of the page with their boxes (CSS px from the page's top left corner), from
 * outer to inner: what they are, what they say, where they lead.
 */
({ mostBlocks, mostChars }) => {
  const ROLES = {
    h1: "heading", h2: "heading", h3: "heading", h4: "heading", h5: "heading", h6: "heading",
    p: "paragraph", blockquote: "quote", pre: "code", table: "table", tr: "row", ul: "list", ol: "list", dl: "list",
    nav: "navigation", section: "section", article: "section", aside: "section", main: "section",
    header: "header", footer: "footer", form: "form", figure: "figure", img: "image", picture: "image",
    video: "video", canvas: "image", iframe: "frame", button: "button", fieldset: "form",
  };
  const state = window[Symbol.for("capture")];
  /* In a frame, boxes count from the upper left corner of the page that holds it. */
  const place = state.frameOffset ?? { x: window.scrollX, y: window.scrollY };
  const blocks = [];
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
      });
    }
  }
  return blocks;

  function isBlock(element) {
    return !/^(inline|contents|none)/.test(getComputedStyle(element).display) && element.localName !== "body";
  }
}
