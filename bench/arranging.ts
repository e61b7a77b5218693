import { Session, type Profiler } from 'node:inspector/promises';
import { arrange, compareKeys } from '@joined-hands/core/arrange';
import { suggestChords } from '@joined-hands/core/harmony';
import { fingerLine, type Grip } from '@joined-hands/core/fingers';
import { handsOf, applyEdit, newDocument, type Document, type Edit, type Song } from '@joined-hands/core/song';
import { layBars, TICKS_PER_QUARTER } from '@joined-hands/core/time';
import { withFills } from '../core/testing/edits.js';
import { madeFigures } from '../core/testing/made-figures.js';
import { demo } from '../core/testing/songs.js';
import { median, medians, ms, ratio, type Row } from './table.js';

/** The same song again and again, `times` over. */
function repeated(song: Song, times: number): Song {
  const over = <T extends { at: number }>(items: readonly T[]) =>
    Array.from({ length: times }, (_, k) => items.map((item) => ({ ...item, at: item.at + k * song.length }))).flat();
  return { ...song, length: song.length * times, melody: over(song.melody), chords: over(song.chords), marks: over(song.marks) };
}

const ballad = demo('harbour-glass.abc');

/** So many bars of the ballad, which has 32. */
export function ofBars(bars: number): Document {
  const whole = repeated(ballad.song, Math.max(1, bars / 32));
  const length = Math.min(whole.length, (ballad.song.length / 32) * bars);
  const within = <T extends { at: number }>(items: readonly T[]) => items.filter((i) => i.at < length);
  return newDocument({
    ...whole,
    length,
    melody: within(whole.melody),
    chords: within(whole.chords),
    marks: within(whole.marks),
  });
}

/** Two times the song in a lively texture, with harmony, and a fill wherever there is room. */
function dressed(): Document {
  const plain = ofBars(64);
  const all = { code: 'edit.setting', range: null } as const;
  const layers: Edit[] = [
    { ...all, setting: 'texture', value: 'rise-and-fall' },
    { ...all, setting: 'harmony', value: { density: 50, size: 'two' } },
  ];
  return withFills(layers.reduce(applyEdit, plain));
}

/** Two times the song with a third under every other note and a left hand as it was written, in place of chords. */
function withTwoHands(): Document {
  const plain = ofBars(64);
  const patterned = applyEdit(plain, { code: 'edit.setting', range: null, setting: 'texture', value: 'bass-chord' });
  const left = arrange(patterned).score.filter((n) => n.hand === 'left');
  const song = { ...plain.song, left: left.map(({ at, length, pitch }) => ({ at, length, pitch })) };
  const thirds = song.melody.filter((_, i) => i % 2 === 0);
  return thirds.reduce(
    (doc, { at }) => applyEdit(doc, { code: 'edit.strike-with', at, below: [4] }),
    applyEdit({ ...plain, song }, { code: 'edit.setting', range: null, setting: 'texture', value: 'written' }),
  );
}

/** A tune of eighth notes that hardly ever takes the same turn twice. */
const tune = (notes: number): Grip[] =>
  Array.from({ length: notes }, (_, i) => {
    const pitch = ['C4', 'D4', 'E4', 'F#4', 'G4', 'A4', 'Bb4', 'C5', 'D5', 'E5', 'F5'][(i * 7 + ((i * i) >> 3)) % 11];
    return { at: (i * TICKS_PER_QUARTER) / 2, length: TICKS_PER_QUARTER / 2, pitches: [pitch] };
  });

/** Songs that differ from one in nothing but a hair of tempo: none finds what was kept of the one before. */
function neverHeard(doc: Document): () => Document {
  let { tempo } = doc.song;
  return () => ({ ...doc, song: { ...doc.song, tempo: (tempo += 0.001) } });
}

/** Arranging at growing lengths: four times the song takes about four times as long. */
export function arranging(): Row[] {
  const rows: Row[] = [];
  let before: number | null = null;
  for (const bars of [16, 64, 256, 1024]) {
    const next = neverHeard(ofBars(bars));
    const taken = median(bars > 256 ? 5 : 11, () => arrange(next()));
    const against = before === null ? '50 ms' : `${ratio(taken, before)} the row above, for 4 × the bars`;
    rows.push({ what: `arrange(), ${bars.toLocaleString('en')} bars`, measured: ms(taken), against });
    before = taken;
  }
  const song = ofBars(64);
  const again = median(11, () => arrange(song));
  rows.push({
    what: 'arrange(), 64 bars, after an edit that leaves tune and chords as they are',
    measured: ms(again),
    against: '–',
  });
  const layered = neverHeard(dressed());
  const taken = median(11, () => arrange(layered()));
  rows.push({ what: 'arrange(), 64 bars with texture, harmony and fills', measured: ms(taken), against: '120 ms' });
  const [plain, twoHanded] = medians(101, [neverHeard(song), neverHeard(withTwoHands())], (next) => arrange(next()));
  const beside = `${(twoHanded / plain).toFixed(2)} × the plain song, by turns: a quarter more at most`;
  rows.push({ what: 'arrange(), 64 bars with thirds and a written left hand', measured: ms(twoHanded), against: beside });
  return rows;
}

/** Which share of arrange() each stage takes: the time in each folder of the core, sampled over many runs of 256 bars. */
export async function stages(): Promise<Row[]> {
  const next = neverHeard(ofBars(256));
  arrange(next());
  const session = new Session();
  session.connect();
  await session.post('Profiler.enable');
  await session.post('Profiler.setSamplingInterval', { interval: 500 });
  await session.post('Profiler.start');
  const runs = 8;
  for (let i = 0; i < runs; i++) arrange(next());
  const { profile } = await session.post('Profiler.stop');
  session.disconnect();
  const spent = byFolder(profile);
  const whole = [...spent.values()].reduce((x, y) => x + y, 0);
  return [...spent]
    .sort((a, b) => b[1] - a[1])
    .map(([folder, time]) => ({
      what: `of arrange(), 256 bars: ${folder}`,
      measured: ms(time / runs / 1000),
      against: `${Math.round((100 * time) / whole)} %`,
    }));
}

/** Microseconds in each folder of core/src: of every sample, the innermost function that lies in one. */
function byFolder(profile: Profiler.Profile): Map<string, number> {
  const parents = new Map<number, number>();
  const folders = new Map<number, string | null>();
  for (const node of profile.nodes) {
    folders.set(node.id, /core\/src\/([\w-]+)\//.exec(node.callFrame.url)?.[1] ?? null);
    for (const child of node.children ?? []) parents.set(child, node.id);
  }
  const spent = new Map<string, number>();
  profile.samples?.forEach((sample, i) => {
    let at: number | undefined = sample;
    while (at !== undefined && !folders.get(at)) at = parents.get(at);
    const folder = at === undefined ? null : folders.get(at);
    if (folder) spent.set(folder, (spent.get(folder) ?? 0) + (profile.timeDeltas?.[i] ?? 0));
  });
  return spent;
}

/** The searches that have a size of their own. */
export function searches(): Row[] {
  const finger = (notes: number) => {
    const line = tune(notes);
    let tempo = 100;
    return median(11, () =>
      fingerLine(line, { hands: handsOf(), hand: 'right', tempo: (tempo += 0.001), key: { tonic: 'C', mode: 'major' } }),
    );
  };
  const suggest = (bars: number) => {
    const { song } = ofBars(bars);
    const task = { tune: song.melody, bars: layBars(song), key: song.key, vocabulary: 'rich', rhythm: 'proposed' } as const;
    const ends = arrange(newDocument(song)).parts.map((p) => p.end);
    return median(5, () => suggestChords({ ...task, tempo: song.tempo, from: 0, to: song.length, ends, fixed: new Map() }));
  };
  const next = neverHeard(ballad);
  const [fingered, suggested] = [finger(200), suggest(64)];
  const [many, much] = [finger(1600), suggest(512)];
  return [
    { what: 'fingering, 200 notes', measured: ms(fingered), against: '30 ms' },
    { what: 'fingering, 1,600 notes', measured: ms(many), against: `${ratio(many, fingered)}, for 8 × the notes` },
    { what: 'suggesting chords, 64 bars, rich, at any pace', measured: ms(suggested), against: '200 ms' },
    { what: 'suggesting chords, 512 bars', measured: ms(much), against: `${ratio(much, suggested)}, for 8 × the bars` },
    { what: 'comparing twelve keys, 32 bars', measured: ms(median(3, () => compareKeys(next()))), against: '–' },
  ];
}

/** How well three hundred tunes are understood whose mode, phrases and chords their maker knows, and the floors that tests hold. */
export function understood(): Row[] {
  const { modes, phrases, chords, amongThree } = madeFigures(300);
  const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
  return [
    { what: '300 made tunes: tonic and mode found', measured: percent(modes), against: '95 %' },
    { what: '300 made tunes: phrases as parts (F1)', measured: percent(phrases), against: '95 %' },
    { what: '300 made tunes: roots of the chords', measured: percent(chords), against: '85 %' },
    { what: '300 made tunes: roots among the first three', measured: percent(amongThree), against: '94 %' },
  ];
}
