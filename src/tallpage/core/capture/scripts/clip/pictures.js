/*
 * Shows animated pictures as they are at a moment. `numbers` tells of each address which of its pictures
 * that is; `pictures` are those that came with it, as PNG in base64, and are kept. Tells of which
 * addresses something is shown here whose picture is still missing.
 */
async ({ numbers, pictures }) => {
  const state = window[Symbol.for("capture")];
  const kept = (state.moments ??= new Map());
  const named = (address) => `${numbers[address]} ${address}`;
  for (const [address, text] of Object.entries(pictures)) {
    const bytes = Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));
    const image = new Image();
    image.src = URL.createObjectURL(new Blob([bytes], { type: "image/png" }));
    /* Where the page forbids such pictures, its own stays. */
    kept.set(named(address), await image.decode().then(() => image, () => null));
  }
  const roots = state.roots();
  const count = roots.reduce((sum, root) => sum + root.querySelectorAll("*").length, 0);
  const addresses = Object.keys(numbers);
  const known = state.grounds;
  if (!known || known.count !== count || addresses.some((address) => !known.of.has(address))) {
    const grounds = { count, of: new Map(addresses.map((address) => [address, known?.of.get(address) ?? []])) };
    for (const root of roots)
      for (const element of root.querySelectorAll("*")) {
        const behind = getComputedStyle(element).backgroundImage;
        if (!behind.includes("url(")) continue;
        for (const address of addresses)
          if (behind.includes(`url("${address}")`) && !grounds.of.get(address).some((row) => row.element === element)) grounds.of.get(address).push({ element, behind });
      }
    state.grounds = grounds;
  }
  const images = roots.flatMap((root) => [...root.querySelectorAll("img")]);
  const missing = new Set();
  for (const address of addresses) {
    const shown = images.filter((image) => image.currentSrc === address);
    const grounds = state.grounds.of.get(address).filter(({ element }) => element.isConnected);
    if (shown.length + grounds.length === 0) continue;
    if (!kept.has(named(address))) {
      missing.add(address);
      continue;
    }
    const now = kept.get(named(address));
    if (!now) continue;
    for (const image of shown) {
      const density = image.naturalWidth > 0 ? now.naturalWidth / image.naturalWidth : 1;
      image.style.setProperty("content", `image-set(url("${now.src}") ${density}x)`, "important");
    }
    for (const { element, behind } of grounds) element.style.setProperty("background-image", behind.replace(`url("${address}")`, `url("${now.src}")`), "important");
  }
  return [...missing];
}
