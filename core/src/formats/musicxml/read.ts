import { XMLParser } from 'fast-xml-parser';
import { fromSemitones } from '@tonaljs/interval';
import { transposeSymbol } from '../../harmony/naming.js';
import { octaveUp, transposeName, transposePitch } from '../../pitch/pitch.js';
import { MOST } from '../../song/limits.js';
import { handsOnKeys, onKeys, type Song } from '../../song/song.js';
import { assemble, type RawSong } from '../measures.js';
import {
  reading,
  refuse,
  stacksIn,
  stacksQuestion,
  type Answers,
  type Found,
  type Notice,
  type Question,
  type Reading,
  type Stacks,
} from '../result.js';
import { decodeText } from '../text.js';
import { Tally } from '../tally.js';
import { BadZip, unzip, type ZipEntry } from '../zip.js';
import { likelyTune, linesOf, MOST_LINES, partwise, type Line } from './lines.js';
import { PartReader } from './part.js';
import { attribute, child, children, element, text, type XmlNode } from './xml.js';

/** Most bytes of a score, packed or unpacked, and most files in a compressed one. */
const MAX_BYTES = 10_000_000;
const MAX_FILES = 200;

/**
 * Reads a score, partwise or timewise, plain or compressed (.mxl). The line most likely to be the tune is taken, or the one that is
 * asked for; of notes struck together in it all are kept or, where asked for, the top or the lowest one. Repeats, endings, "da capo" and
 * "dal segno" are played out; transposing parts are read as they sound. What has no place in a song is counted.
 */
export function readMusicXml(data: string | Uint8Array, answers: Answers = {}): Reading {
  return reading(() => {
    const xml = typeof data === 'string' ? data : unpack(data);
    if (!xml.trim()) refuse(null, { code: 'file.empty' }, 'export-musicxml');
    if (xml.length > MAX_BYTES) refuse(null, { code: 'file.too-long', most: 10, what: 'megabytes' }, 'one-song');
    if (!/^\uFEFF?\s*</.test(xml)) refuse(null, { code: 'musicxml.no-tag' }, 'export-musicxml');
    if (!/<score-(partwise|timewise)/.test(xml)) refuse(null, { code: 'musicxml.no-score' }, 'export-musicxml');
    if (/<!ENTITY/i.test(xml)) refuse(null, { code: 'musicxml.entities' }, 'export-musicxml');
    checkLength(xml);
    checkSigns(xml);
    return readScore(parseXml(xml), answers);
  });
}

/** Most notes of a whole score, all parts together. */
const MOST_SCORED = 60_000;

/** Refuses a score of too many notes, or a part of too many measures, before anything is parsed. */
function checkLength(xml: string): void {
  let measures = 0;
  let notes = 0;
  for (const [tag] of xml.matchAll(/<(part|measure|note)[\s>]/g)) {
    if (tag.startsWith('<note')) {
      if (++notes > MOST_SCORED) refuse(null, { code: 'file.too-many', most: MOST_SCORED, what: 'notes' }, 'one-song');
      continue;
    }
    measures = tag.startsWith('<part') ? 0 : measures + 1;
    if (measures > MOST.bars) refuse(null, { code: 'file.too-many', most: MOST.bars, what: 'bars' }, 'one-song');
  }
}

/** Most attributes and tags of a whole score: some sixteen and some twenty for each note of the longest. */
const MOST_SIGNS = { attributes: 1_000_000, tags: 1_200_000 } as const;

/** Refuses a score that is swollen with attributes or tags before it is taken apart. */
function checkSigns(xml: string): void {
  for (const [sign, what] of [
    ['=', 'attributes'],
    ['<', 'tags'],
  ] as const) {
    let count = 0;
    for (let at = xml.indexOf(sign); at >= 0; at = xml.indexOf(sign, at + 1))
      if (++count > MOST_SIGNS[what]) refuse(null, { code: 'file.too-many', most: MOST_SIGNS[what], what }, 'one-song');
  }
}

function unpack(data: Uint8Array): string {
  if (data[0] !== 0x50 || data[1] !== 0x4b) return decodeText(data);
  let files: ZipEntry[];
  try {
    files = unzip(data, { files: MAX_FILES, bytes: MAX_BYTES, wanted: (name) => /\.(musicxml|xml)$/i.test(name) });
  } catch (error) {
    const large = error instanceof BadZip && error.why === 'too large';
    return large
      ? refuse(null, { code: 'zip.too-large' }, 'one-song')
      : refuse(null, { code: 'file.damaged', format: 'zip' }, 'export-musicxml');
  }
  const container = files.find((f) => f.name === 'META-INF/container.xml');
  const path = container ? /full-path="([^"]+)"/.exec(decodeText(container.data))?.[1] : undefined;
  const score = files.find((f) => (path === undefined ? !f.name.startsWith('META-INF') : f.name === path));
  return score ? decodeText(score.data) : refuse(null, { code: 'zip.no-score' }, 'export-musicxml');
}

function parseXml(xml: string): XmlNode[] {
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    parseTagValue: false,
    // Letters that are written as numbers ("&#39;"), and none but the usual names.
    processEntities: { enabled: true, maxExpandedLength: MAX_BYTES },
    htmlEntities: true,
  });
  try {
    return parser.parse(xml) as XmlNode[];
  } catch {
    return refuse(null, { code: 'file.damaged', format: 'xml' }, 'export-musicxml');
  }
}

function readScore(nodes: XmlNode[], answers: Answers): { song: Song } & Found {
  const timewise = element(nodes, 'score-timewise');
  const score = timewise ? partwise(timewise) : element(nodes, 'score-partwise');
  if (!score || !child(score, 'part')) return refuse(null, { code: 'musicxml.no-part' }, 'export-musicxml');
  const lines = linesOf(score);
  const line = lines.find((l) => l.id === answers['line']) ?? likelyTune(lines);
  if (!line) return refuse(null, { code: 'tune.none' }, 'file-with-tune');
  const tally = new Tally();
  const reader = new PartReader(line, tally);
  for (const measure of children(children(score, 'part')[line.part], 'measure')) reader.takeMeasure(measure);
  for (const other of lines) if (other.part !== line.part) tally.add('other-parts', 'left out', other.notes);
  const stacks = stacksIn(answers);
  const raw: RawSong = { ...reader.song(), ...namesOf(score) };
  const { song, notices, reminders } = assemble(raw, stacks);
  const stacked = raw.measures.some((m) => m.inner || m.notes.some((n) => n.pitches.length > 1));
  tally.add(
    'chord-symbols',
    'used',
    raw.measures.reduce((sum, m) => sum + m.chords.length, 0),
  );
  const moved = reader.transposed;
  const kept: Notice[] = [
    ...(song.left ? [{ code: 'notice.left-kept' } as const] : []),
    ...(song.inner ? [{ code: 'notice.inner-kept' } as const] : []),
  ];
  const said: Notice[] = [...notices, ...kept, ...(moved === 0 ? [] : [{ code: 'notice.transposed' } as const])];
  return {
    song: moved === 0 ? song : asItSounds(song, moved),
    notices: song.order ? [...said, { code: 'notice.order', order: song.order }] : said,
    questions: questionsOf(lines, line, stacked, stacks),
    counted: tally.all(),
    reminders,
  };
}

function namesOf(score: XmlNode): Pick<RawSong, 'title' | 'composer'> {
  const title = text(child(score, 'work'), 'work-title') || text(score, 'movement-title') || 'Untitled';
  const creators = children(child(score, 'identification'), 'creator');
  const composer = creators.find((c) => (attribute(c, 'type') ?? 'composer') === 'composer');
  const composerName = composer ? (text(composer) ?? '').trim().slice(0, 200) : '';
  return { title: title.trim(), composer: composerName || null };
}

function questionsOf(lines: readonly Line[], line: Line, stacked: boolean, stacks: Stacks): Question[] {
  const questions: Question[] = [];
  if (lines.length > 1)
    questions.push({
      id: 'line',
      entries: lines.slice(0, MOST_LINES).map((l) => ({
        id: l.id,
        fact: { code: 'entry.line', name: l.name, notes: l.notes, sung: l.words > 0 },
      })),
      value: line.id,
    });
  if (stacked) questions.push(stacksQuestion(stacks));
  return questions;
}

/** Intervals that sound like the usual ones but are a letter further or nearer. */
const OTHER_SPELLING: Readonly<Record<number, string>> = {
  1: '1A',
  2: '3d',
  3: '2A',
  4: '4d',
  6: '4A',
  8: '5A',
  9: '7d',
  10: '6A',
  11: '8d',
};

/** A song of a transposing instrument as it sounds, some half steps from what is written; its chords with it. */
function asItSounds(song: Song, halfSteps: number): Song {
  const octaves = Math.trunc(halfSteps / 12);
  const steps = halfSteps - 12 * octaves;
  const usual = fromSemitones(steps);
  // A key of more than seven sharps or flats is written as the one that sounds the same.
  const readable = (interval: string) => /^[A-G][b#]?$/.test(transposeName(song.key.tonic, interval));
  const interval = readable(usual) ? usual : (OTHER_SPELLING[Math.abs(steps)]?.replace(/^/, steps < 0 ? '-' : '') ?? usual);
  return {
    ...song,
    key: { ...song.key, tonic: transposeName(song.key.tonic, interval) },
    melody: song.melody.map((n) => onKeys(n, (pitch) => octaveUp(transposePitch(pitch, interval), octaves))),
    ...handsOnKeys(song, (pitch) => octaveUp(transposePitch(pitch, interval), octaves)),
    chords: song.chords.map((c) => ({ ...c, symbol: transposeSymbol(c.symbol, interval) })),
  };
}
