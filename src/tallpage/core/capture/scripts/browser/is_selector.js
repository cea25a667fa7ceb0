/* Whether a text is a CSS selector. */
(text) => {
  try {
    document.createDocumentFragment().querySelector(text);
    return true;
  } catch {
    return false;
  }
}
