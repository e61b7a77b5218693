import { explainCut, type ExplainedCut } from '../divide/divide.js';
import type { BendFact } from '../fills/bend.js';
import { explainChord, type ExplainedChord } from '../harmony/choices.js';
import type { VoicingFact } from '../left-hand/reasons.js';
import { explainVoicing, solveLeftHand, whyNotVoicing, type ExplainedVoicing } from '../left-hand/voice.js';
import type { Pitch } from '../pitch/pitch.js';
import { explainFinger, fingerReasons, type ExplainedFinger, type FingerReasons } from '../fingers/explain.js';
import type { FingeringTask } from '../fingers/search.js';
import type { RightHand } from '../right-hand/right-hand.js';
import type { Document } from '../song/decisions.js';
import type { Song } from '../song/song.js';
import { placeOf, type Bar, type Place } from '../time/bars.js';
import type { Ticks } from '../time/ticks.js';
import { leftSide, rightSide, strikesOf } from './hands.js';
import { materialOf, type Material } from './material.js';
import { settingsOf, voicingWishes, type Settings } from './settings.js';

/** Why a bar is as it is: every decision that a search made in it, with its cost term by term and that of the nearest alternative. */
export interface ExplainedBar {
  readonly bar: number;
  readonly cuts: readonly (ExplainedCut & { readonly place: Place; readonly insteadPlace: Place | null })[];
  readonly harmony: readonly (ExplainedChord & { readonly place: Place })[];
  readonly voicings: readonly {
    readonly place: Place;
    readonly symbol: string;
    readonly chosen: ExplainedVoicing;
    readonly rival: ExplainedVoicing | null;
    /** Where its texture gives way, and to what. */
    readonly bends: readonly BendFact[];
  }[];
  readonly fingers: readonly (ExplainedFinger & { readonly place: Place; readonly pitch: Pitch })[];
}

/** Explains a bar by its number (0 for a pick-up); null where the song has no such bar. */
export function explainBar(doc: Document, number: number): ExplainedBar | null {
  const settings = settingsOf(doc);
  const material = materialOf(doc.song, settings);
  const bar = material.bars.find((b) => b.number === number);
  if (!bar) return null;
  const inside = ({ at }: { readonly at: number }) => at >= bar.start && at < bar.end;
  const place = (at: number) => placeOf(material.bars, at);
  const left = leftSide(settings, material);
  const paced = { tune: material.written, bars: material.bars, tempo: doc.song.tempo, ends: material.ends };
  return {
    bar: number,
    cuts: cutsIn(doc.song, settings, material, bar).map((c) => ({
      ...c,
      place: place(c.at),
      insteadPlace: c.instead === null ? null : place(c.instead),
    })),
    harmony: material.found.flatMap((chord, i) => {
      const explained = inside(chord) ? explainChord(paced, material.found, i) : null;
      return explained ? [{ ...explained, place: place(chord.at) }] : [];
    }),
    voicings: voicingsIn(settings, material, left, inside).map((v) => ({ ...v, place: place(v.at) })),
    fingers: fingersIn(settings, material, left, inside).map((f) => ({ ...f, place: place(f.at) })),
  };
}

/** Why a chord, by the place where it is struck, does not lie on other keys, which are one of its alternatives; null where nothing decides. */
export function explainAlternative(doc: Document, at: Ticks, pitches: readonly Pitch[]): VoicingFact | null {
  const settings = settingsOf(doc);
  const material = materialOf(doc.song, settings);
  const strikes = strikesOf(settings, material);
  const { problem, choices } = solveLeftHand(strikes, material.played, voicingWishes(settings, material));
  const i = problem.layers.findIndex((l) => l.strike.at === at);
  return i < 0 ? null : whyNotVoicing(problem, choices, i, pitches, settings.hands);
}

function cutsIn(song: Song, settings: Settings, { bars, stretches, written }: Material, bar: Bar): ExplainedCut[] {
  return stretches
    .filter((s) => s.start >= bar.start && s.start < bar.end)
    .flatMap((s) => explainCut({ ...song, melody: [...written] }, bars, settings.division, s.start) ?? []);
}

type Inside = (item: { readonly at: number }) => boolean;

function voicingsIn(settings: Settings, material: Material, left: ReturnType<typeof leftSide>, inside: Inside) {
  const { problem, choices } = solveLeftHand(left.strikes, material.played, voicingWishes(settings, material));
  return problem.layers.flatMap((layer, i) =>
    inside(layer.strike) && !layer.strike.restruck
      ? [
          {
            at: layer.strike.at,
            symbol: layer.chord.text,
            ...explainVoicing(problem, choices, i, settings.hands),
            bends: left.dressed[i]?.bends ?? [],
          },
        ]
      : [],
  );
}

/** Why a note of the right hand, by the place where it is struck, has its finger, and what the others would cost; null where none is struck. */
export function explainFingerAt(doc: Document, at: Ticks): FingerReasons | null {
  const settings = settingsOf(doc);
  const material = materialOf(doc.song, settings);
  const phrase = phraseWith(rightSide(settings, material, leftSide(settings, material)).fingered, at);
  return phrase && fingerReasons(phrase.grips, phrase.row, phrase.index, rightTask(settings, material));
}

const rightTask = ({ hands }: Settings, { song }: Material): FingeringTask => ({
  hands,
  hand: 'right',
  tempo: song.tempo,
  key: song.key,
});

/** The phrase of the right hand in which something is struck at a place, and which of its grips that is. */
function phraseWith(
  { grips, row }: RightHand,
  at: Ticks,
): (Pick<RightHand, 'grips' | 'row'> & { readonly index: number }) | null {
  const i = grips.findIndex((g) => g.at === at);
  if (i < 0) return null;
  let from = i;
  while (from > 0 && !grips[from].fresh) from--;
  let to = i + 1;
  while (to < grips.length && !grips[to].fresh) to++;
  return { grips: grips.slice(from, to), row: row.slice(from, to), index: i - from };
}

function fingersIn(settings: Settings, material: Material, left: ReturnType<typeof leftSide>, inside: Inside) {
  const { fingered } = rightSide(settings, material, left);
  const task = rightTask(settings, material);
  return fingered.grips.filter(inside).flatMap(({ at, pitches }) => {
    const phrase = phraseWith(fingered, at);
    return phrase
      ? [{ ...explainFinger(phrase.grips, phrase.row, phrase.index, task), at, pitch: pitches[pitches.length - 1] }]
      : [];
  });
}
