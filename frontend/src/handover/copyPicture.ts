/** Puts a picture into the clipboard, as PNG: browsers take no other format there. */
export async function copyPicture(address: string): Promise<void> {
  const item = new ClipboardItem({ "image/png": asPng(address) });
  await navigator.clipboard.write([item]);
}

async function asPng(address: string): Promise<Blob> {
  const response = await fetch(address);
  if (!response.ok) throw new Error(`${response.status}`);
  const bitmap = await createImageBitmap(await response.blob());
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  canvas.getContext("2d")?.drawImage(bitmap, 0, 0);
  bitmap.close();
  return canvas.convertToBlob({ type: "image/png" });
}
