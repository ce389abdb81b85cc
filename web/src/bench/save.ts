/** Saves a picture of the page as a file: an SVG as it is, with the colours it has here. */
export function saveSVG(svg: SVGSVGElement, name: string): void {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  const style = getComputedStyle(document.documentElement);
  const text = new XMLSerializer()
    .serializeToString(copy)
    .replace(/var\((--[\w-]+)\)/g, (_, v: string) => style.getPropertyValue(v).trim() || "#000");
  download(URL.createObjectURL(new Blob([text], { type: "image/svg+xml" })), `${name}.svg`);
}

/** Saves a plot as PNG, on paper white. */
export function savePNG(canvas: HTMLCanvasElement, name: string): void {
  const copy = document.createElement("canvas");
  copy.width = canvas.width;
  copy.height = canvas.height;
  const c = copy.getContext("2d");
  if (!c) return;
  c.fillStyle = "#fffdf6";
  c.fillRect(0, 0, copy.width, copy.height);
  c.drawImage(canvas, 0, 0);
  download(copy.toDataURL("image/png"), `${name}.png`);
}

function download(href: string, name: string): void {
  const a = document.createElement("a");
  a.href = href;
  a.download = name;
  a.click();
}

/** A file as base64, in pieces that a call can take. */
export async function coded(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = "";
  for (let i = 0; i < bytes.length; i += 32_768)
    text += String.fromCharCode(...bytes.subarray(i, i + 32_768));
  return btoa(text);
}
