import { midiOf, type Pitch } from '../../pitch/pitch.js';
import type { Song } from '../../song/song.js';
import type { Bar } from '../../time/bars.js';
import type { TempoPoint } from '../../time/tempo.js';
import type { Ticks } from '../../time/ticks.js';

/** Text as it may stand in XML. */
export const escapeXml = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** A move of the pedal. */
export interface WrittenPedal {
  readonly at: Ticks;
  readonly kind: 'press' | 'change' | 'lift';
}

/** A dynamic sign at a place, or a swell over a stretch. */
export type WrittenDynamic =
  | { readonly kind: 'level'; readonly at: Ticks; readonly level: string }
  | { readonly kind: 'swell'; readonly at: Ticks; readonly until: Ticks; readonly way: 'louder' | 'softer' };

/** What stands over, between and under the staves. */
export interface Directions {
  readonly song: Song;
  /** Numbers of parts and the place where each begins, printed over the staff. */
  readonly parts: readonly { readonly number: number; readonly start: Ticks }[];
  readonly pedal: readonly WrittenPedal[];
  readonly dynamics: readonly WrittenDynamic[];
  /** What the pianist wrote over the staff to be reminded by. */
  readonly reminders: readonly { readonly at: Ticks; readonly text: string }[];
  /** How the tempo goes; steady where there is one point only. */
  readonly tempo: readonly TempoPoint[];
  /** The share of a quarter that the first of two eighths takes. */
  readonly swing: number;
}

/** A direction in a bar; one that stands at the end of the music belongs to its last bar. */
function direction(at: Ticks, bar: Bar, content: string, placement: 'above' | 'below', staff: 1 | 2, sound = ''): string {
  const offset = at > bar.start ? `<offset>${at - bar.start}</offset>` : '';
  return `      <direction placement="${placement}"><direction-type>${content}</direction-type>${offset}<staff>${staff}</staff>${sound}</direction>`;
}

/** Eighths that swing: the word, and for players of files what the two of a pair take of their quarter. */
function swingSign(share: number, bar: Bar): string {
  const first = Math.round(share * 100);
  const swing = `<swing><first>${first}</first><second>${100 - first}</second><swing-type>eighth</swing-type></swing>`;
  return direction(bar.start, bar, '<words>Swing</words>', 'above', 1, `<sound>${swing}</sound>`);
}

const PEDAL = { press: 'start', change: 'change', lift: 'stop' } as const;

/** All directions that begin in a bar, in the order of the staves. */
export function directionsIn(score: Directions, bar: Bar, first: boolean, last: boolean): string[] {
  const inside = (at: Ticks) => at >= bar.start && (at < bar.end || (last && at === bar.end));
  const xml: string[] = [];
  if (first) xml.push(metronome(score.song.tempo, bar.start, bar));
  if (first && score.swing > 0.5) xml.push(swingSign(score.swing, bar));
  for (const { start, number } of score.parts)
    if (start >= bar.start && start < bar.end) xml.push(direction(start, bar, `<rehearsal>${number}</rehearsal>`, 'above', 1));
  xml.push(...wordsIn(score, bar));
  for (const { at, percent, sign } of score.tempo.slice(1)) {
    if (sign === 'stop' || at < bar.start || at >= bar.end) continue;
    const tempo = Math.round(score.song.tempo * percent) / 100;
    const offset = at > bar.start ? `<offset>${at - bar.start}</offset>` : '';
    if (sign === 'rit')
      xml.push(direction(at, bar, '<words font-style="italic">rit.</words>', 'above', 1, `<sound tempo="${tempo}"/>`));
    else if (sign === 'tempo') xml.push(metronome(tempo, at, bar));
    else xml.push(`      <sound tempo="${tempo}">${offset}</sound>`);
  }
  for (const mark of score.dynamics) {
    if (mark.kind === 'level') {
      if (inside(mark.at)) xml.push(direction(mark.at, bar, `<dynamics><${mark.level}/></dynamics>`, 'below', 1));
      continue;
    }
    const type = mark.way === 'louder' ? 'crescendo' : 'diminuendo';
    if (inside(mark.at)) xml.push(direction(mark.at, bar, `<wedge type="${type}"/>`, 'below', 1));
    // A swell ends inside the bar in which it is last heard.
    if (mark.until > bar.start && mark.until <= bar.end) xml.push(direction(mark.until, bar, '<wedge type="stop"/>', 'below', 1));
  }
  for (const { at, kind } of score.pedal)
    if (inside(at)) xml.push(direction(at, bar, `<pedal type="${PEDAL[kind]}" line="no" sign="yes"/>`, 'below', 2));
  return xml;
}

/** What the name of a pianist's own words begins with, by which they are known again. */
export const REMINDER = 'reminder-';

/** Words over the staff: those of the song, and in italics those that the pianist wrote. */
function wordsIn({ song, reminders }: Directions, bar: Bar): string[] {
  const inside = ({ at }: { readonly at: Ticks }) => at >= bar.start && at < bar.end;
  const words = (at: Ticks, text: string, style = '') =>
    direction(at, bar, `<words${style}>${escapeXml(text)}</words>`, 'above', 1);
  return [
    ...song.marks.filter(inside).flatMap(({ at, kind, text }) => (kind === 'words' && text ? [words(at, text)] : [])),
    ...reminders.filter(inside).map(({ at, text }) => words(at, text, ` id="${REMINDER}${at}" font-style="italic"`)),
  ];
}

function metronome(tempo: number, at: Ticks, bar: Bar): string {
  const content = `<metronome><beat-unit>quarter</beat-unit><per-minute>${tempo}</per-minute></metronome>`;
  return direction(at, bar, content, 'above', 1, `<sound tempo="${tempo}"/>`);
}

/** Keys from which a staff's notes are written an octave nearer: all of a bar past `all`, and one past `one`. */
const FAR = { 1: { all: 79, one: 88, way: 1 }, 2: { all: 48, one: 33, way: -1 } } as const;

/** The bars, by index, in which a staff's notes lie so far outside that they are written an octave nearer. */
export function farBars(
  notes: readonly { readonly at: Ticks; readonly pitches: readonly Pitch[] }[],
  bars: readonly Bar[],
  staff: 1 | 2,
): Set<number> {
  const { all, one, way } = FAR[staff];
  const far = new Set<number>();
  let n = 0;
  bars.forEach((bar, i) => {
    const keys: number[] = [];
    for (; n < notes.length && notes[n].at < bar.end; n++) keys.push(...notes[n].pitches.map(midiOf));
    if (keys.length > 0 && keys.every((k) => (k - all) * way >= 0) && keys.some((k) => (k - one) * way >= 0)) far.add(i);
  });
  return far;
}

/** The sign that begins or ends writing a staff an octave nearer, where a bar needs one. */
export function octaveShift(far: ReadonlySet<number>, index: number, bar: Bar, staff: 1 | 2, which: 'start' | 'stop'): string[] {
  const beside = index + (which === 'start' ? -1 : 1);
  if (!far.has(index) || far.has(beside)) return [];
  const type = which === 'stop' ? 'stop' : staff === 1 ? 'down' : 'up';
  return [direction(bar.start, bar, `<octave-shift type="${type}" size="8"/>`, staff === 1 ? 'above' : 'below', staff)];
}
