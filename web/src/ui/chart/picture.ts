import { download } from '../../words/csv';

/** Dots of the picture for each CSS pixel. */
const SHARPNESS = 2;

/** A drawing that stands by itself: what the page's tokens give it is written into it. */
function standalone(svg: SVGSVGElement): string {
  const style = getComputedStyle(document.documentElement);
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const { width, height } = svg.getBoundingClientRect();
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  copy.setAttribute('style', `background:${style.getPropertyValue('--paper')};font-family:sans-serif`);
  return new XMLSerializer()
    .serializeToString(copy)
    .replace(/var\((--[a-z-]+)\)/g, (_, name: string) => style.getPropertyValue(name).trim());
}

/** Hands a drawing to the reader as SVG. */
export const saveSvg = (svg: SVGSVGElement, name: string): void =>
  download(`${name}.svg`, standalone(svg), 'image/svg+xml');

/** Hands a drawing to the reader as PNG. */
export async function savePng(svg: SVGSVGElement, name: string): Promise<void> {
  const { width, height } = svg.getBoundingClientRect();
  const url = URL.createObjectURL(new Blob([standalone(svg)], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = width * SHARPNESS;
    canvas.height = height * SHARPNESS;
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (blob) download(`${name}.png`, blob, 'image/png');
  } finally {
    URL.revokeObjectURL(url);
  }
}
