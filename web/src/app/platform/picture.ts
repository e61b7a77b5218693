/** Dots of a picture for each pixel of the screen. */
const FINE = 2;

/** What is seen of an element, as a PNG file, on white paper or on another ground. */
export async function pictureOf(element: HTMLElement, ground = '#ffffff'): Promise<Uint8Array> {
  const { toBlob } = await import('html-to-image');
  const picture = await toBlob(element, { pixelRatio: FINE, backgroundColor: ground });
  if (!picture) throw new Error('The picture is empty.');
  return new Uint8Array(await picture.arrayBuffer());
}
