import { asKeyChord, isHome } from '../harmony/progression.js';
import type { Song } from '../song/song.js';
import { midiOf } from '../pitch/pitch.js';
import { barAt, firstAtOrAfter, offsetInBar, type Bar } from '../time/bars.js';
import { barTicks, beatTicks, metricStrength } from '../time/meter.js';
import type { Ticks } from '../time/ticks.js';

/**
 * What each sign of a phrase ending is worth. The terms follow the grouping preferences of Lerdahl and Jackendoff
 * (1983) and the boundary profiles of Cambouropoulos (2001); the weights were set on song phrases.
 */
export const BOUNDARY_TERMS = {
  section: 3,
  lineEnd: 2.2,
  doubleBar: 1.8,
  repeat: 1.8,
  rest: 1.4,
  longNote: 1.2,
  sentenceEnd: 1.2,
  comma: 0.6,
  capital: 1.2,
  breath: 1,
  slurEnd: 0.7,
  cadence: 0.6,
  returns: 1,
  alike: 0.8,
  longest: 1,
  leap: 0.3,
  everyFourBars: 0.15,
  everyTwoBars: 0.2,
  barLine: 0.4,
  usualPickup: 0.5,
  /** A cut inside a word or off the beat is hard to hold in mind. */
  insideWord: -3,
  offBeat: -1.5,
  midBar: -1.5,
} as const;

/** A sign of a phrase ending, and what it is worth here. */
export interface BoundaryTerm {
  readonly term: keyof typeof BOUNDARY_TERMS;
  readonly worth: number;
}

/** Why a part begins where it does: a sign of a phrase ending with its worth, or the pianist's own cut. */
export type BoundaryFact = ({ readonly code: 'boundary.sign' } & BoundaryTerm) | { readonly code: 'boundary.yours' };

/** A place where a part may begin, with how much speaks for it and against it. */
export interface Boundary {
  readonly at: Ticks;
  readonly strength: number;
  readonly terms: readonly BoundaryTerm[];
  /** Melody notes that begin before it. */
  readonly notesBefore: number;
}

/** What tells that a phrase has ended, as a note that is longer than all near it does: the next may lead in with a pick-up of its own. */
const CLOSES: ReadonlySet<keyof typeof BOUNDARY_TERMS> = new Set([
  'sentenceEnd',
  'comma',
  'capital',
  'breath',
  'slurEnd',
  'lineEnd',
]);
/** What is left there of the price of beginning inside a bar. */
const OWN_PICKUP = 0.2;

/** How many notes have to come back for a return of earlier material. */
const RETURN_WINDOW = 5;

/** All places where a part may begin, in order, the start and the end of the song left out. */
export function findBoundaries(song: Song, bars: readonly Bar[]): Boundary[] {
  const returns = findReturns(song);
  const alike = findAlike(song, bars);
  const closes = findCadences(song);
  const found: Boundary[] = [];
  const notes = song.melody;
  const usual = usualLength(song);
  const isCapital = capitals(song);
  const leadsIn = leadIns(song, bars, isCapital);
  const marksAt = placeMarks(song, bars, leadsIn);
  const add = (at: Ticks, notesBefore: number, signs: readonly Sign[], opens = false) => {
    if (at <= 0 || at >= song.length || found.at(-1)?.at === at) return;
    const marks = markTerms(marksAt.get(at));
    const closed = opens || [...signs, ...marks].some(([term]) => CLOSES.has(term));
    const all = [...signs, ...placeTerms(song, bars, at, closed), ...marks];
    const terms = all.map(([term, share]): BoundaryTerm => ({ term, worth: BOUNDARY_TERMS[term] * share }));
    found.push({ at, strength: terms.reduce((sum, t) => sum + t.worth, 0), notesBefore, terms });
  };
  for (let i = 0; i <= notes.length; i++) {
    const from = i === 0 ? 0 : notes[i - 1].at + notes[i - 1].length;
    const to = i === notes.length ? song.length : notes[i].at;
    const start = i === notes.length ? song.length : startOfPhrase(bars, from, to);
    for (const bar of barLinesBetween(bars, from, start)) add(bar, i, [['rest', 1]]);
    if (i === 0 || i === notes.length) continue;
    const previous = notes[i - 1];
    const terms: Sign[] = [];
    const beat = beatTicks(barAt(bars, previous.at).meter);
    if (to > from) terms.push(['rest', Math.min(1, (to - from) / (2 * beat))]);
    // A held note spreads over the rest behind it: what counts is how long nothing new is struck.
    if (to - previous.at >= 2 * usual && to - previous.at > notes[i].length)
      terms.push(['longNote', Math.min(1.5, (to - previous.at) / (4 * usual))]);
    const bar = barTicks(barAt(bars, previous.at).meter);
    if (isLongest(notes, i - 1, 2 * bar)) terms.push(['longest', 1]);
    if (Math.abs(midiOf(notes[i].pitch) - midiOf(previous.pitch)) >= 7) terms.push(['leap', 1]);
    terms.push(...wordTerms(song, i));
    if (isCapital(i)) terms.push(['capital', 1]);
    if (closes(to)) terms.push(['cadence', 1]);
    // What leads in from the second half of a bar begins with what it leads to.
    const led = ledTo(notes, i, bars);
    if (returns[i] || returns[led]) terms.push(['returns', 1]);
    if (alike.at.has(i) || alike.at.has(led)) terms.push(['alike', alike.share]);
    add(start, i, terms, leadsIn(i));
  }
  return found;
}

/**
 * Whether a phrase seems to have ended before a note, by its words or by a note that is longer than all within two bars and a half: what
 * follows in the second half of a bar is then a pick-up of its own, however the song's others are.
 */
function leadIns(song: Song, bars: readonly Bar[], isCapital: (i: number) => boolean): (i: number) => boolean {
  const notes = song.melody;
  return (i) =>
    i > 0 &&
    i < notes.length &&
    (isCapital(i) ||
      wordTerms(song, i).some(([term]) => term === 'sentenceEnd' || term === 'comma') ||
      isLongest(notes, i - 1, 2.5 * barTicks(barAt(bars, notes[i - 1].at).meter), true));
}

/**
 * Marks by their place. Lines of writing and sections end at bar lines even where the next phrase has a pick-up
 * before it: such a mark speaks for the place where the pick-up begins, the phrase's own where one shows, or one as long as the song's.
 */
function placeMarks(song: Song, bars: readonly Bar[], leadsIn: (i: number) => boolean): Map<Ticks, Set<string>> {
  const notes = song.melody;
  const onsets = new Set(notes.map((n) => n.at));
  const placed = new Map<Ticks, Set<string>>();
  for (const { at, kind } of song.marks) {
    const place = offsetInBar(barAt(bars, at), at) === 0 ? (pickupBefore(at) ?? at) : at;
    placed.set(place, (placed.get(place) ?? new Set()).add(kind));
  }
  return placed;

  function pickupBefore(at: Ticks): Ticks | null {
    const half = at - barTicks(barAt(bars, Math.max(0, at - 1)).meter) / 2;
    const next = firstAtOrAfter(notes, at);
    if (leadsIn(next)) return null;
    for (let i = next - 1; i > 0 && notes[i].at >= half; i--) if (leadsIn(i)) return notes[i].at;
    return song.pickup > 0 && onsets.has(at - song.pickup) ? at - song.pickup : null;
  }
}

/** A sign with its share: how strongly it shows here. */
type Sign = readonly [term: keyof typeof BOUNDARY_TERMS, share: number];

function startOfPhrase(bars: readonly Bar[], from: Ticks, to: Ticks): Ticks {
  const bar = barAt(bars, to);
  const late = to - bar.start;
  // Notes that start soon after a bar line belong with that bar; later ones are a pick-up of their own.
  return bar.start >= from && late * 2 < bar.end - bar.start ? bar.start : to;
}

function barLinesBetween(bars: readonly Bar[], from: Ticks, to: Ticks): Ticks[] {
  const lines: Ticks[] = [];
  let bar = barAt(bars, from);
  let index = bars.indexOf(bar);
  if (bar.start < from) bar = bars[++index];
  for (; bar && bar.start < to; bar = bars[++index]) lines.push(bar.start);
  return lines;
}

function placeTerms(song: Song, bars: readonly Bar[], at: Ticks, closed: boolean): Sign[] {
  const bar = barAt(bars, at);
  const offset = offsetInBar(bar, at);
  const full = barTicks(bar.meter);
  const lead = full - song.pickup;
  const terms: Sign[] = [];
  const isPickup = song.pickup > 0 && song.pickup < full && offset === lead;
  if (isPickup) terms.push(['usualPickup', 1]);
  // Bars are counted from the first full bar, whether the phrase starts on it or leads into it.
  const leadsIn = offset > 0 && offset * 2 >= full;
  if (offset === 0) terms.push(['barLine', 1]);
  else if (!isPickup) {
    const off = metricStrength(offset, bar.meter) === 0;
    terms.push([off ? 'offBeat' : 'midBar', leadsIn && closed ? OWN_PICKUP : 1]);
  }
  const done = leadsIn ? bar.number : bar.number - 1;
  if (done > 0 && (offset === 0 || leadsIn)) {
    if (done % 4 === 0) terms.push(['everyFourBars', 1]);
    else if (done % 2 === 0) terms.push(['everyTwoBars', 1]);
  }
  return terms;
}

function markTerms(kinds: ReadonlySet<string> | undefined): Sign[] {
  if (!kinds) return [];
  const terms: Sign[] = [];
  if (kinds.has('section')) terms.push(['section', 1]);
  if (kinds.has('line-end')) terms.push(['lineEnd', 1]);
  if (kinds.has('double-bar')) terms.push(['doubleBar', 1]);
  if (kinds.has('repeat') || kinds.has('ending')) terms.push(['repeat', 1]);
  if (kinds.has('slur-end')) terms.push(['slurEnd', 1]);
  if (kinds.has('breath')) terms.push(['breath', 1]);
  return terms;
}

function wordTerms(song: Song, i: number): Sign[] {
  const before = song.melody.slice(Math.max(0, i - LONGEST_SYLLABLE), i).findLast((n) => n.lyric)?.lyric;
  if (song.melody[i - 1].lyric?.joins) return [['insideWord', 1]];
  // Inside a syllable that is sung over several notes a cut tears the word.
  if (isSungOn(song.melody, i)) return [['insideWord', 0.5]];
  // A sentence ends behind its last note, or where the next one begins.
  if (!before || (!song.melody[i].lyric && !song.melody[i - 1].lyric)) return [];
  if (/[.!?;:]["”’)]*$/.test(before.text)) return [['sentenceEnd', 1]];
  if (/[,–—]["”’)]*$/.test(before.text)) return [['comma', 1]];
  return [];
}

/** Whether a line of verse seems to begin at a note: its word has a capital where few words of the song do. */
function capitals({ melody }: Song): (i: number) => boolean {
  const words = melody.filter(
    (n, i) => n.lyric && !melody.slice(Math.max(0, i - LONGEST_SYLLABLE), i).findLast((m) => m.lyric)?.lyric?.joins,
  );
  const raised = new Set(words.filter((n) => /^\P{L}*(?!I\b)\p{Lu}/u.test(n.lyric?.text ?? '')));
  return raised.size > FEW_CAPITALS * words.length ? () => false : (i) => raised.has(melody[i]);
}

/** The share of words with a capital up to which it marks a line; some languages give every noun one. */
const FEW_CAPITALS = 0.3;

/** Notes that one syllable may be sung over. */
const LONGEST_SYLLABLE = 12;

/** True where a syllable is still sung at a note: without a breath since, and with words to come. What an instrument plays on is no word. */
function isSungOn(notes: Song['melody'], i: number): boolean {
  if (notes[i].lyric) return false;
  let k = i;
  while (k > 0 && !notes[k].lyric && i - k < LONGEST_SYLLABLE) {
    if (notes[k].at > notes[k - 1].at + notes[k - 1].length) return false;
    k--;
  }
  return notes[k].lyric !== null && notes.slice(i).some((n) => n.lyric);
}

/**
 * Whether the chords that stand come home before a place: the one that sounds until it is the home chord, and the one before it leads
 * there, as a dominant, a fourth or the chord below home do. Places are asked for in order.
 */
function findCadences({ chords, key }: Song): (at: Ticks) => boolean {
  const known = chords.map((c) => asKeyChord(c.symbol, key));
  let i = 0;
  return (at) => {
    while (i + 1 < chords.length && chords[i + 1].at < at) i++;
    const [before, last] = [known[i - 1], known[i]];
    return Boolean(before && last && isHome(last) && (before.role === 'dominant' || before.role === 'predominant'));
  };
}

/** The usual length of a note: the median. */
function usualLength(song: Song): Ticks {
  const lengths = song.melody.map((n) => n.length).sort((a, b) => a - b);
  return lengths[lengths.length >> 1] ?? 1;
}

/** For every note, whether material that was heard before comes back exactly from here on. */
function findReturns(song: Song): boolean[] {
  const notes = song.melody;
  const key = (i: number) => {
    let text = '';
    for (let k = i; k < i + RETURN_WINDOW; k++) text += `${notes[k].pitch}:${notes[k].length},`;
    return text;
  };
  const firstAt = new Map<string, number>();
  const back = notes.map(() => false);
  for (let i = 0; i + RETURN_WINDOW <= notes.length; i++) {
    const text = key(i);
    const first = firstAt.get(text);
    if (first === undefined) firstAt.set(text, i);
    else if (i >= first + RETURN_WINDOW && (first === 0 || notes[first - 1].pitch !== notes[i - 1].pitch)) back[i] = true;
  }
  return back;
}

/** The note on the bar line that a note in the second half of a bar leads to; the note itself where there is none. */
function ledTo(notes: Song['melody'], i: number, bars: readonly Bar[]): number {
  const bar = barAt(bars, notes[i].at);
  if (2 * offsetInBar(bar, notes[i].at) < bar.end - bar.start) return i;
  let k = i;
  while (k < notes.length && notes[k].at < bar.end) k++;
  return notes[k]?.at === bar.end ? k : i;
}

/**
 * True for a note after which nothing new is struck for longer than anywhere near it; alone, where no later note is its equal either: it
 * belongs to no figure that comes again and again.
 */
function isLongest(notes: Song['melody'], i: number, near: Ticks, alone = false): boolean {
  const lasts = (k: number) => notes[k + 1].at - notes[k].at;
  const own = lasts(i);
  for (let k = i - 1; k >= 0 && notes[k].at > notes[i].at - near; k--) if (lasts(k) >= own) return false;
  for (let k = i + 1; k + 1 < notes.length && notes[k].at < notes[i + 1].at + near; k++)
    if (lasts(k) > own || (alone && lasts(k) === own)) return false;
  return true;
}

/**
 * The notes from which the tune goes on in the rhythm in which it began, for two bars, with how much that tells: nothing where every bar
 * has the same rhythm.
 */
function findAlike(song: Song, bars: readonly Bar[]): { at: ReadonlySet<number>; share: number } {
  const notes = song.melody;
  const at = new Set<number>();
  if (notes.length < 2) return { at, share: 0 };
  const span = 2 * barTicks(song.meters[0]);
  const print = (i: number) => {
    const row: Ticks[] = [];
    for (let k = i; k < notes.length && notes[k].at < notes[i].at + span; k++) row.push(notes[k].at - notes[i].at);
    return row.join();
  };
  const offset = (i: number) => offsetInBar(barAt(bars, notes[i].at), notes[i].at);
  // A pick-up begins where the bar has as much left as the song's own.
  const first = notes[0].at === 0 && song.pickup > 0 ? barTicks(song.meters[0]) - song.pickup : offset(0);
  const own = print(0);
  let places = 0;
  for (let i = 1; i < notes.length; i++) {
    if (offset(i) !== first) continue;
    places++;
    if (print(i) !== own) continue;
    at.add(i);
  }
  return { at, share: places === 0 ? 0 : 1 - at.size / places };
}
