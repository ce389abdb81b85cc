const longest = 1280;

/** A picture no larger than is needed, as base64: drawn anew, so that it says nothing of where it was taken. */
export async function small(file: Blob): Promise<string> {
  const picture = await createImageBitmap(file);
  const by = Math.min(1, longest / Math.max(picture.width, picture.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(picture.width * by);
  canvas.height = Math.round(picture.height * by);
  canvas.getContext("2d")?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL("image/jpeg", 0.82).replace(/^data:image\/jpeg;base64,/, "");
}
