/** A drawn chart as an SVG that stands alone: the theme's colours written in, its ground behind it. */
export function svgOf(drawn: SVGSVGElement): string {
  const copy = drawn.cloneNode(true) as SVGSVGElement;
  const { width, height } = drawn.getBoundingClientRect();
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", String(width));
  copy.setAttribute("height", String(height));
  if (!copy.hasAttribute("viewBox")) copy.setAttribute("viewBox", `0 0 ${width} ${height}`);
  const style = getComputedStyle(document.documentElement);
  const ground = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  ground.setAttribute("width", "100%");
  ground.setAttribute("height", "100%");
  ground.setAttribute("fill", "var(--ground)");
  copy.prepend(ground);
  copy.setAttribute("font-family", "sans-serif");
  return new XMLSerializer()
    .serializeToString(copy)
    .replace(/var\((--[a-z-]+)\)/g, (_, name: string) => style.getPropertyValue(name).trim() || "currentColor");
}

/** Pixels a unit of a picture that is saved: sharp on any screen. */
const density = 2;

/** The same as a PNG. */
export async function pngOf(drawn: SVGSVGElement): Promise<Blob> {
  const { width, height } = drawn.getBoundingClientRect();
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgOf(drawn))}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(width * density);
  canvas.height = Math.round(height * density);
  canvas.getContext("2d")?.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error("The picture can't be made."))),
      "image/png",
    ),
  );
}
