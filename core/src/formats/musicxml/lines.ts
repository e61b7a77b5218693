import type { LineName } from '../result.js';
import { grouped } from '../../lists/grouped.js';
import { child, children, attribute, text, type XmlNode } from './xml.js';

/** A voice on a staff of a part: what may be the tune. */
export interface Line {
  /** "2/1/3": part, staff and voice. */
  readonly id: string;
  readonly part: number;
  readonly staff: string;
  readonly voice: string;
  readonly name: LineName;
  readonly notes: number;
  readonly words: number;
}

/** Names of parts that say that the tune is in them. */
const TUNEFUL = /\b(voice|vocal|vocals|melody|lead|solo|sing|singer|soprano|tune)\b/i;

/** Most lines that are offered as the tune: a score for an orchestra has some fifty. */
export const MOST_LINES = 100;

/** Every line of a score that holds notes, in the order of the page: by part, staff and voice. */
export function linesOf(score: XmlNode): Line[] {
  const names = new Map(
    children(child(score, 'part-list'), 'score-part').map((p) => [attribute(p, 'id') ?? '', (text(p, 'part-name') ?? '').trim()]),
  );
  return children(score, 'part').flatMap((part, index) => {
    const found = new Map<string, { staff: string; voice: string; notes: number; words: number }>();
    for (const measure of children(part, 'measure'))
      for (const note of children(measure, 'note')) {
        if (child(note, 'rest') || child(note, 'grace') || child(note, 'cue') || child(note, 'chord') || !child(note, 'pitch'))
          continue;
        const [staff, voice] = [text(note, 'staff') ?? '1', text(note, 'voice') ?? '1'];
        const key = `${index + 1}/${staff}/${voice}`;
        const line = found.get(key) ?? { staff, voice, notes: 0, words: 0 };
        line.notes++;
        if (child(note, 'lyric')) line.words++;
        found.set(key, line);
      }
    const voices = grouped([...found.values()], (l) => l.staff);
    const name = names.get(attribute(part, 'id') ?? '') || null;
    return [...found]
      .sort(([, a], [, b]) => inOrder(a.staff, b.staff) || inOrder(a.voice, b.voice))
      .map(([id, line]): Line => {
        const staff = voices.size > 1 ? line.staff : null;
        const voice = (voices.get(line.staff)?.length ?? 0) > 1 ? line.voice : null;
        return { ...line, id, part: index, name: { of: 'part', name, number: index + 1, staff, voice } };
      });
  });
}

/** Names of staves and voices as they are numbered, those that are no numbers last. */
const inOrder = (a: string, b: string): number =>
  (Number(a) || Infinity) - (Number(b) || Infinity) || (a < b ? -1 : a > b ? 1 : 0);

/** The line that is most likely the tune: one that is sung, else one whose part is named so, else the first on the page. */
export function likelyTune(lines: readonly Line[]): Line | null {
  const most = Math.max(0, ...lines.map((l) => l.notes));
  // A few notes beside a line of many are a voice that only comes in once.
  const score = (l: Line, i: number) =>
    (l.words * 4 > l.notes ? 100 : 0) +
    (TUNEFUL.test(l.name.name ?? '') ? 40 : 0) -
    i +
    (l.notes < 4 && l.notes * 10 < most ? -50 : 0);
  const [best] = lines.map((line, i) => ({ line, score: score(line, i) })).sort((a, b) => b.score - a.score);
  return best?.line ?? null;
}

/** A timewise score as a partwise one: the same measures, gathered part by part. */
export function partwise(score: XmlNode): XmlNode {
  const measures = children(score, 'measure');
  const parts = new Map<string, XmlNode[]>();
  for (const measure of measures)
    for (const part of children(measure, 'part')) {
      const id = attribute(part, 'id') ?? '';
      const list = parts.get(id) ?? [];
      list.push({ measure: children(part), ':@': measure[':@'] });
      parts.set(id, list);
    }
  const others = children(score).filter((n) => !('measure' in n));
  return { 'score-partwise': [...others, ...[...parts].map(([id, list]) => ({ part: list, ':@': { id } }))] };
}
