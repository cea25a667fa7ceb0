/* What tells a sign-in page: visible fields for a password, and how much the page says besides. */
() => {
  const fields = [...document.querySelectorAll("input[type=password]")].filter((field) => {
    const box = field.getBoundingClientRect();
    return box.width > 1 && box.height > 1 && field.checkVisibility({ opacityProperty: true, visibilityProperty: true });
  });
  return { passwordFields: fields.length, textChars: (document.body?.innerText || "").length };
}
