import type { Shot, Take } from './reel';
import { escaped, SIGNS, shown, type Stills } from './stills';

/** Pixels of a film. */
export const FILM = { width: 1280, height: 720 } as const;

const STYLES = `
.film{width:1280px;height:720px;display:grid;grid-template-rows:56px minmax(0,1fr) 96px 150px;background:var(--paper);color:var(--ink);font:17px/1.4 var(--read)}
.film .head{display:flex;align-items:baseline;gap:18px;padding:12px 24px;font:600 25px/1.2 var(--title)}
.film .head span{font:400 19px/1.2 var(--read);color:var(--soft)}
.film .sheet{margin:0 20px;padding:8px 26px;background:var(--sheet);border:1px solid var(--line);border-radius:12px;overflow:hidden}
${SIGNS}
.film .sheet svg{display:block;max-width:100%}
.film .caption{display:grid;align-content:center;margin:0;padding:0 60px;font-size:26px;line-height:1.25;text-align:center}
.film .board{padding:6px 24px;background:var(--shelf);border-top:1px solid var(--line)}
.film .board svg{display:block;width:100%;height:136px}
`;

const SVG = 'http://www.w3.org/2000/svg';

/** Makes pictures of shots. What is the same in all of them is written once. */
export function framesOf({ strips, keyboard, styles }: Stills): (take: Take, shot: Shot) => Promise<ImageBitmap> {
  const { width, height } = FILM;
  const css = escaped(`${styles}${STYLES}`);
  const head = encodeURIComponent(
    `<svg xmlns="${SVG}" width="${width}" height="${height}"><style>${css}</style><foreignObject width="${width}" height="${height}">`,
  );
  return async (take, shot) => {
    const page = new DOMParser().parseFromString('<div class="film"></div>', 'text/html');
    const film = page.body.firstElementChild as HTMLElement;
    film.innerHTML = `<div class="head">${escaped(take.chapter)}<span>${escaped(take.title)}</span></div><div class="sheet">${strips[`${shot.part}:${shot.view}`]}</div><p class="caption">${escaped(shown(shot.caption))}</p><div class="board">${keyboard}</div>`;
    mark(film, shot);
    const inside = encodeURIComponent(`${new XMLSerializer().serializeToString(film)}</foreignObject></svg>`);
    const picture = new Image(width, height);
    picture.src = `data:image/svg+xml;charset=utf-8,${head}${inside}`;
    await picture.decode();
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')?.drawImage(picture, 0, 0, width, height);
    return canvas.transferToImageBitmap();
  };
}

/** Marks on strip and keyboard what a shot shows. */
function mark(film: HTMLElement, { at, keys }: Shot): void {
  if (at !== null) for (const mark of film.querySelectorAll(`[data-at="${at}"]`)) mark.classList.add('on');
  for (const { midi, hand, finger } of keys) {
    const key = film.querySelector(`.board [data-midi="${midi}"]`);
    if (!key) continue;
    key.classList.add('sounding');
    const number = (name: string) => Number(key.getAttribute(name));
    const x = number('x') + number('width') / 2;
    const y = number('y') + number('height') * (key.classList.contains('black') ? 0.75 : 0.735);
    const add = (kind: string, values: Record<string, string | number>, text: string) => {
      const made = film.ownerDocument.createElementNS(SVG, kind);
      for (const [name, value] of Object.entries(values)) made.setAttribute(name, `${value}`);
      made.textContent = text;
      key.parentNode?.append(made);
    };
    add('circle', { class: `dot ${hand}`, cx: x, cy: y, r: 12 }, '');
    add('text', { class: 'dot-text', x, y: y + 5.5, 'font-size': 16 }, finger);
  }
}
