import { ApplicationRef, EnvironmentInjector, createComponent, inputBinding, type Type } from '@angular/core';
import type { Arrangement, Part } from '@joined-hands/core/arrange';
import type { KeyboardSize } from '@joined-hands/core/song';
import type { HandView } from '../../platform/state/desk.store';
import { JoinStrip } from '../../ui/join-strip/join-strip';
import { Keyboard } from '../../ui/keyboard/keyboard';
import { signRuns } from '../../ui/sign-runs';

/** Drawings as they stand by themselves, away from the application: their markup, and the styles that it needs. */
export interface Stills {
  /** Strips by the number of their part and how they are shown: "2:joined"; those for a phone beside them. */
  readonly strips: Readonly<Record<string, string>>;
  readonly narrow: Readonly<Record<string, string>>;
  readonly keyboard: string;
  readonly styles: string;
}

/** Pixels that strips and the keyboard are drawn for: on a large screen, and on a phone. */
const WIDE = { width: 1180, height: 380, most: 1.5 };
const NARROW = { width: 350, height: 420, most: 1 };

/** How musical signs stand beside their letter. */
export const SIGNS = `.sign{font-family:'Noto Music',var(--read);font-size:1.15em;line-height:0;vertical-align:.14em;baseline-shift:.14em}`;

/** What is used in the pages that drawings go into. */
const USED = ['--read', '--title', '--paper', '--ink', '--soft', '--line', '--sheet', '--shelf', '--join', '--focus'];

/** Text as it stands in markup. */
export const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

/** A sentence with its musical signs, for where it is plain text. */
export const shown = (text: string): string =>
  signRuns(text)
    .map((run) => run.text)
    .join('');

/** Faces that are written with, and the letters of them that are taken along. */
const FACES = /Fraunces|Atkinson|Noto Music/;
const LATIN = 'U+0-FF';

/** A part as a hand by itself sees it. */
export function seenBy(view: HandView, part: Part): Part {
  if (view === 'right') return { ...part, chords: [], together: [] };
  if (view === 'left') return { ...part, melody: [], together: [], under: [], places: [], fills: [] };
  return part;
}

/** Draws strips and the keyboard out of sight, and takes their drawings. */
export async function makeStills(
  { bars, parts, swing }: Arrangement,
  names: readonly string[],
  size: KeyboardSize,
  learnBy: 'words' | 'counts',
  injector: EnvironmentInjector,
): Promise<Stills> {
  const stage = document.createElement('div');
  stage.className = 'on-paper';
  stage.inert = true;
  stage.style.cssText = `position:fixed;left:-${2 * WIDE.width}px;top:0;width:${WIDE.width}px`;
  document.body.append(stage);
  const made: (() => void)[] = [];
  const draw = <T>(type: Type<T>, inputs: Record<string, unknown>): HTMLElement => {
    const bindings = Object.entries(inputs).map(([name, value]) => inputBinding(name, () => value));
    const drawn = createComponent(type, { environmentInjector: injector, bindings });
    const application = injector.get(ApplicationRef);
    application.attachView(drawn.hostView);
    const host = drawn.location.nativeElement as HTMLElement;
    host.style.display = 'block';
    stage.append(host);
    made.push(() => {
      application.detachView(drawn.hostView);
      drawn.destroy();
    });
    return host;
  };
  try {
    const strip = (name: string, { width, height, most }: typeof WIDE): [string, HTMLElement] => {
      const [number, view] = name.split(':') as [string, HandView];
      const part = seenBy(view, parts[Number(number) - 1]);
      const host = draw(JoinStrip, { part, bars, swing, view, learnBy, height, most });
      host.style.width = `${width}px`;
      return [name, host];
    };
    const strips = names.map((name) => strip(name, WIDE));
    const narrow = names.map((name) => strip(name, NARROW));
    const keyboard = draw(Keyboard, { size });
    // The strips learn how wide they are, and are drawn anew.
    for (let i = 0; i < 3; i++) await new Promise((done) => setTimeout(done, 60));
    const rules = [...rulesOf(strips[0]?.[1], '.strip'), ...rulesOf(keyboard, '.keys')].join('\n');
    const values = [...new Set(rules.match(/var\((--[\w-]+)/g) ?? [])].map((v) => v.slice(4));
    const computed = getComputedStyle(stage);
    const variables = [...new Set([...values, ...USED])].map((v) => `${v}:${computed.getPropertyValue(v)}`).join(';');
    const drawn = (all: readonly [string, HTMLElement][]) =>
      Object.fromEntries(all.map(([name, host]) => [name, plainMarkup(host, `strip ${viewClass(name)}`)]));
    return {
      strips: drawn(strips),
      narrow: drawn(narrow),
      keyboard: plainMarkup(keyboard, 'keys'),
      styles: `${await faces()}\n:root{${variables}}\n${rules}`,
    };
  } finally {
    for (const end of made) end();
    stage.remove();
  }
}

const viewClass = (name: string): string => `view-${name.split(':')[1]}`;

/** The markup of a drawing without what the framework and screen readers read. */
function plainMarkup(host: HTMLElement, name: string): string {
  const inside = host.innerHTML
    .replace(/<!--[\s\S]*?-->/g, '')
    .replace(/\s_ng(content|host)-[\w-]+(="")?/g, '')
    .replace(/\s(role|tabindex|aria-[\w-]+|data-testid|ng-[\w-]+)="[^"]*"/g, '');
  return `<div class="${name}">${inside}</div>`;
}

/** The rules of a component, for markup that stands under a name. */
function rulesOf(host: HTMLElement | undefined, name: string): string[] {
  const scope = host?.getAttributeNames().find((a) => a.startsWith('_nghost-'))?.slice('_nghost-'.length); // prettier-ignore
  if (!scope) return [];
  return [...document.styleSheets].flatMap((sheet) =>
    [...sheet.cssRules].flatMap((rule) => {
      if (!(rule instanceof CSSStyleRule) || !rule.selectorText.includes(scope)) return [];
      const selectors = rule.selectorText.split(',').map((s) => {
        const host = s.includes(`[_nghost-${scope}]`);
        const bare = s.replaceAll(`[_nghost-${scope}]`, name).replace(/\[data-view="?(\w+)"?\]/, '.view-$1').replaceAll(`[_ngcontent-${scope}]`, '').trim(); // prettier-ignore
        return host ? bare : `${name} ${bare}`;
      });
      return [`${selectors.join(',')}{${rule.style.cssText}}`];
    }),
  );
}

/** The faces that are written with, whole, as rules. */
async function faces(): Promise<string> {
  const rules = [...document.styleSheets].flatMap(
    (sheet) =>
    [...sheet.cssRules].flatMap((rule) => (rule instanceof CSSFontFaceRule && FACES.test(rule.style.cssText) ? [{ rule, base: sheet.href }] : [])), // prettier-ignore
  );
  const whole = await Promise.all(
    rules.map(async ({ rule, base }) => {
      const range = rule.style.getPropertyValue('unicode-range').toUpperCase();
      const music = /Noto Music/.test(rule.style.cssText);
      if (!music && range && !range.startsWith(LATIN) && !range.startsWith('U+0000')) return '';
      const address = /url\("?([^")]+\.woff2[^")]*)"?\)/.exec(rule.style.cssText)?.[1];
      if (!address) return '';
      const file = await fetch(new URL(address, base ?? document.baseURI));
      const data = `data:font/woff2;base64,${base64(new Uint8Array(await file.arrayBuffer()))}`;
      return `@font-face{${rule.style.cssText.replace(/src:[^;]+;/, `src:url(${data}) format("woff2");`)}}`;
    }),
  );
  return whole.join('\n');
}

/** Bytes as text that a page can hold. */
export function base64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(text);
}
