import fc from 'fast-check';
import { strToU8 } from 'fflate';
import { midiOf } from '../src/pitch/pitch.js';
import { TICKS_PER_QUARTER as Q } from '../src/time/ticks.js';

/** A tune that is known before it is written, bar by bar: what a reader must find, whatever the file looks like. */
export interface KnownTune {
  readonly title: string;
  readonly beats: number;
  readonly bars: readonly (readonly KnownNote[])[];
}

interface KnownNote {
  /** Null for a rest. */
  readonly pitch: string | null;
  /** Length as a fraction of a quarter note. */
  readonly over: number;
  readonly under: number;
}

/** Figures of one quarter note or two: plain values, dotted ones, triplets. */
const FIGURES: readonly (readonly (readonly [over: number, under: number])[])[] = [
  [[1, 1]],
  [[2, 1]],
  [
    [1, 2],
    [1, 2],
  ],
  [
    [3, 4],
    [1, 4],
  ],
  [
    [3, 2],
    [1, 2],
  ],
  [
    [1, 3],
    [1, 3],
    [1, 3],
  ],
  [
    [2, 3],
    [1, 3],
  ],
  [
    [1, 4],
    [1, 4],
    [1, 2],
  ],
];

const PITCHES = ['C4', 'D4', 'E4', 'F#4', 'G4', 'Ab4', 'A4', 'Bb4', 'B4', 'C5', 'D5', 'Eb5', 'F5', 'G5'];

/** Titles with what other programs leave as codes or mangle. */
const TITLES = ["Don't", 'Café au port', 'Fish & Chips', 'Über <alles>', '“Quay” No. 4', '100% tide', 'Señora', 'Plain'];

/** Known tunes; `fits` says which lengths a file can hold at all. */
export function knownTunes(fits: (over: number, under: number) => boolean = () => true): fc.Arbitrary<KnownTune> {
  const figures = FIGURES.filter((f) => f.every(([over, under]) => fits(over, under)));
  return fc
    .record({
      title: fc.constantFrom(...TITLES),
      beats: fc.constantFrom(2, 3, 4),
      rests: fc.boolean(),
      picks: fc.array(
        fc.record({
          figure: fc.constantFrom(...figures),
          pitches: fc.array(fc.constantFrom(...PITCHES, null), { minLength: 3, maxLength: 3 }),
        }),
        {
          minLength: 24,
          maxLength: 24,
        },
      ),
      count: fc.integer({ min: 1, max: 5 }),
    })
    .map(({ title, beats, rests, picks, count }): KnownTune => {
      const bars: KnownNote[][] = [];
      let p = 0;
      for (let b = 0; b < count; b++) {
        if (b === 0 && rests) {
          bars.push([{ pitch: null, over: beats, under: 1 }]);
          continue;
        }
        const bar: KnownNote[] = [];
        let left = beats;
        while (left > 1e-9) {
          const pick = picks[p++ % picks.length];
          const sum = pick.figure.reduce((s, [over, under]) => s + over / under, 0);
          const figure = sum <= left + 1e-9 ? pick.figure : FIGURES[0];
          figure.forEach(([over, under], i) => bar.push({ pitch: pick.pitches[i % 3], over, under }));
          left -= figure === pick.figure ? sum : 1;
        }
        bars.push(bar);
      }
      // There is always something to play.
      bars.push([{ pitch: 'C5', over: beats, under: 1 }]);
      return { title, beats, bars };
    });
}

/** What must be found: place, length and pitch of every note, in ticks. */
export function known(tune: KnownTune): string[] {
  const notes: string[] = [];
  tune.bars.forEach((bar, b) => {
    let at = b * tune.beats * Q;
    for (const { pitch, over, under } of bar) {
      const length = (Q * over) / under;
      if (pitch) notes.push(`${at} ${length} ${pitch}`);
      at += length;
    }
  });
  return notes;
}

/** Divisions of a quarter note that programs write, from 1 to 10,080. */
export const DIVISIONS = [
  1, 2, 4, 6, 8, 12, 16, 24, 32, 48, 60, 64, 72, 96, 100, 120, 128, 144, 192, 240, 252, 256, 300, 320, 360, 384, 420, 480, 500,
  504, 512, 600, 640, 720, 768, 840, 960, 1000, 1008, 1024, 1200, 1260, 1280, 1440, 1536, 1680, 1920, 2048, 2520, 3072, 3360,
  3840, 4096, 4800, 5040, 6720, 7560, 7680, 8192, 9600, 10_000, 10_080,
];

/** How a MusicXML file is written. */
export interface XmlStyle {
  readonly divisions: number;
  /** Note values beside the durations. */
  readonly types: boolean;
  /** Where a length is no whole number of divisions: places are rounded, or every length is cut. */
  readonly rounding: 'places' | 'lengths';
  readonly staves: 1 | 2;
  /** The lower staff stands first in the measure. */
  readonly lowerFirst: boolean;
  readonly latin: boolean;
}

const escaped = (text: string, latin: boolean): string =>
  [...text.replaceAll('&', '&amp;').replaceAll('<', '&lt;')]
    .map((c) => (c === "'" || c.charCodeAt(0) > (latin ? 255 : 0x2000) ? `&#${c.codePointAt(0)};` : c))
    .join('');

const TYPES: Readonly<Record<string, string>> = {
  '1/1': '<type>quarter</type>',
  '2/1': '<type>half</type>',
  '3/1': '<type>half</type><dot/>',
  '4/1': '<type>whole</type>',
  '1/2': '<type>eighth</type>',
  '3/2': '<type>quarter</type><dot/>',
  '3/4': '<type>eighth</type><dot/>',
  '1/4': '<type>16th</type>',
  '1/3': '<type>eighth</type><time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification>',
  '2/3':
    '<type>quarter</type><time-modification><actual-notes>3</actual-notes><normal-notes>2</normal-notes></time-modification>',
};

/** A score as other programs write it. */
export function knownXml(tune: KnownTune, style: XmlStyle): Uint8Array {
  const { divisions, staves } = style;
  const pitchXml = (p: string) => {
    const alter = p.includes('#') ? 1 : p.includes('b') ? -1 : 0;
    return `<pitch><step>${p[0]}</step>${alter ? `<alter>${alter}</alter>` : ''}<octave>${p.at(-1)}</octave></pitch>`;
  };
  const staff = (n: number) => (staves === 2 ? `<staff>${n}</staff>` : '');
  const measures = tune.bars.map((bar, b) => {
    let exact = 0;
    let written = 0;
    const upper = bar.map(({ pitch, over, under }) => {
      exact += (over / under) * divisions;
      const duration = style.rounding === 'places' ? Math.round(exact) - written : Math.floor((over / under) * divisions);
      written += duration;
      const type = style.types ? (TYPES[`${over}/${under}`] ?? '') : '';
      return `<note>${pitch ? pitchXml(pitch) : '<rest/>'}<duration>${duration}</duration><voice>1</voice>${type}${staff(1)}</note>`;
    });
    const back = (n: number) => `<backup><duration>${n}</duration></backup>`;
    const full = tune.beats * divisions;
    const lower = `<note>${pitchXml('C3')}<duration>${full}</duration><voice>5</voice>${staff(2)}</note>`;
    const body =
      staves === 1
        ? upper.join('')
        : style.lowerFirst
          ? `${lower}${back(full)}${upper.join('')}`
          : `${upper.join('')}${back(written)}${lower}`;
    const head =
      b > 0
        ? ''
        : `<attributes><divisions>${divisions}</divisions><time><beats>${tune.beats}</beats><beat-type>4</beat-type></time></attributes>`;
    return `<measure number="${b + 1}">${head}${body}</measure>`;
  });
  const title = escaped(tune.title, style.latin);
  const xml = `<?xml version="1.0" encoding="${style.latin ? 'ISO-8859-1' : 'UTF-8'}"?><score-partwise version="3.1"><work><work-title>${title}</work-title></work><part-list><score-part id="P1"><part-name>Piano</part-name></score-part></part-list><part id="P1">${measures.join('')}</part></score-partwise>`;
  return style.latin ? Uint8Array.from(xml, (c) => c.charCodeAt(0)) : strToU8(xml);
}

/** Ticks to a quarter note that programs write in MIDI files. */
export const RESOLUTIONS = [24, 48, 96, 120, 192, 240, 256, 384, 480, 768, 960, 1024, 1920];

const variable = (n: number): number[] => (n < 128 ? [n] : [...variable(n >> 7).map((b) => b | 0x80), n & 0x7f]);

/** A MIDI file of one track with running status and names in UTF-8. */
export function knownMidi(tune: KnownTune, ppq: number, ends: 'note-off' | 'silent note-on'): Uint8Array {
  const events: { at: number; bytes: number[] }[] = [];
  const text = (type: number, words: string) => {
    const bytes = strToU8(words);
    return [0xff, type, ...variable(bytes.length), ...bytes];
  };
  events.push({ at: 0, bytes: text(3, tune.title) });
  events.push({ at: 0, bytes: [0xff, 0x58, 4, tune.beats, 2, 24, 8] });
  events.push({ at: 0, bytes: [0xff, 0x51, 3, 0x09, 0x27, 0xc0] });
  const off = ends === 'note-off' ? 0x80 : 0x90;
  const sounds: { at: number; status: number; data: [number, number] }[] = [];
  tune.bars.forEach((bar, b) => {
    let quarters = b * tune.beats;
    for (const { pitch, over, under } of bar) {
      const end = quarters + over / under;
      if (pitch) {
        sounds.push({ at: Math.round(quarters * ppq), status: 0x90, data: [midiOf(pitch), 80] });
        sounds.push({ at: Math.round(end * ppq), status: off, data: [midiOf(pitch), off === 0x90 ? 0 : 64] });
      }
      quarters = end;
    }
  });
  // What ends stands before what begins at the same tick.
  sounds.sort((a, b) => a.at - b.at || Number(a.status === 0x90 && a.data[1] > 0) - Number(b.status === 0x90 && b.data[1] > 0));
  let running = -1;
  for (const { at, status, data } of sounds) {
    events.push({ at, bytes: status === running ? data : [status, ...data] });
    running = status;
  }
  let last = 0;
  const track = events.flatMap(({ at, bytes }) => {
    const delta = variable(at - last);
    last = at;
    return [...delta, ...bytes];
  });
  track.push(0, 0xff, 0x2f, 0);
  const long = (n: number) => [n >>> 24, (n >> 16) & 255, (n >> 8) & 255, n & 255];
  return Uint8Array.from([
    0x4d,
    0x54,
    0x68,
    0x64,
    0,
    0,
    0,
    6,
    0,
    0,
    0,
    1,
    ppq >> 8,
    ppq & 255,
    0x4d,
    0x54,
    0x72,
    0x6b,
    ...long(track.length),
    ...track,
  ]);
}

/** The tune as ABC in C major, every accidental written, in UTF-8 or Latin-1. */
export function knownAbc(tune: KnownTune, latin: boolean): Uint8Array {
  const letter = (p: string) => {
    const octave = Number(p.at(-1));
    const sign = p.includes('#') ? '^' : p.includes('b') ? '_' : '=';
    return `${sign}${octave > 4 ? p[0].toLowerCase() : p[0]}`;
  };
  const bars = tune.bars.map((bar) => {
    let text = '';
    for (let i = 0; i < bar.length; i++) {
      const one = ({ pitch, over, under }: KnownNote, scale: number) => `${pitch ? letter(pitch) : 'z'}${over * scale}/${under}`;
      if (bar[i].under !== 3) {
        text += one(bar[i], 1);
        continue;
      }
      // A triplet: three thirds, or two and one.
      let last = i;
      let sum = 0;
      while (sum < 3) sum += bar[last++].over;
      const group = bar.slice(i, last).map((n) => `${n.pitch ? letter(n.pitch) : 'z'}${n.over}/2`);
      text += `(3:2:${group.length}${group.join('')}`;
      i = last - 1;
    }
    return text;
  });
  const abc = `X:1\nT:${tune.title.replaceAll('%', '\\%')}\nM:${tune.beats}/4\nL:1/4\nK:C\n${bars.join('|')}|]\n`;
  return latin ? Uint8Array.from(abc, (c) => c.charCodeAt(0)) : strToU8(abc);
}
