import type { Counted, TextFormat } from '@joined-hands/core/formats';
import { expose } from 'comlink';
import {
  adaptations,
  arrange,
  arrangeNearby,
  compareKeys,
  explainAlternative,
  explainFingerAt,
  schoolPrices,
  songDifficulty,
  levelOptions,
  whatHelps,
  type AdaptationFact,
  type Arrangement,
  type Ease,
  type Finding,
  type KeyFacts,
  type SchoolPrice,
  type Scope,
  type LevelOption,
} from '@joined-hands/core/arrange';
import type { FingerReasons } from '@joined-hands/core/fingers';
import type { VoicingFact } from '@joined-hands/core/left-hand';
import { type Pass } from '@joined-hands/core/log';
import { simulateLog, type PractisedDays } from '@joined-hands/core/practice';
import { checkDocument, midiScore, wordLines, writtenScore, type SongCard } from '@joined-hands/core/sheet';
import type { Document, Hands, TickRange } from '@joined-hands/core/song';
import { wordsWith, type NoteNames } from '@joined-hands/core/words';
import { chartText, lessonText } from '@joined-hands/core/words/texts';
import { difference, type ArrangementPatch } from './arrangement-patch';

/** Files an arrangement can be written as. */
export type ExportKind = 'musicxml' | 'midi' | 'letters' | 'abc' | 'chordpro' | 'chart' | 'lesson' | 'project';

/** The readers and writers are large and rarely needed: they load with the first file. */
const formats = () => import('@joined-hands/core/formats');

/** A song as it was saved, checked and arranged; or why it cannot be opened. */
export type OpenedSong =
  | { readonly ok: true; readonly document: Document; readonly id: number; readonly arrangement: Arrangement }
  | { readonly ok: false; readonly title: string; readonly fault: NonNullable<SongCard['fault']> };

/** An arrangement that was sent to the page, whole or as what changed, under a number. */
export interface EditedSong {
  readonly id: number;
  readonly change: { readonly whole: Arrangement } | { readonly patch: ArrangementPatch };
  /** False where only the parts near the one at work are as the edit makes them; the rest is told by `settle`. */
  readonly settled: boolean;
}

/** A song as one of several players plays it. */
export interface AdaptedSong {
  readonly changes: readonly AdaptationFact[];
  readonly difficulty: number;
  /** What still asks to be mended. */
  readonly troubles: readonly Finding['fact'][];
}

/** A score to be engraved here: the whole, and what fills its first page by itself where the whole is much longer. */
export interface PageScore {
  readonly whole: string;
  readonly start: string | null;
}

/** Bars that are more than a page holds. */
const START_BARS = 64;

interface Sent {
  readonly id: number;
  readonly document: Document;
  readonly arrangement: Arrangement;
  readonly settled: boolean;
}

/** What was sent last, the newest at the end: the page builds on one of these. */
let sent: readonly Sent[] = [];
const MOST_SENT = 3;

function send(document: Document, arrangement: Arrangement, settled = true): Sent {
  const now = { id: (sent.at(-1)?.id ?? 0) + 1, document, arrangement, settled };
  sent = [...sent, now].slice(-MOST_SENT);
  return now;
}

/** Sends an arrangement as what it changes of one that the page has. */
function sendChange(document: Document, arrangement: Arrangement, base: Sent | undefined, settled: boolean): EditedSong {
  const { id } = send(document, arrangement, settled);
  return { id, change: base ? { patch: difference(base.arrangement, arrangement) } : { whole: arrangement }, settled };
}

/** The arrangement of a document: the one that the page has, where it is of the same. */
function arranged(document: Document): Arrangement {
  const last = sent.at(-1);
  const same = last?.settled === true && JSON.stringify(last.document) === JSON.stringify(document);
  return same ? last.arrangement : arrange(document);
}

const arranger = {
  arrange(document: Document): Arrangement {
    return arrange(document);
  },

  /**
   * Arranges a song that was edited, and sends what is no longer the same as in the answer that the page still has. Of a long song the
   * parts near the one at work come first.
   */
  edit(document: Document, base: number | null, part: number): EditedSong {
    const before = sent.find((s) => s.id === base);
    const near = before && arrangeNearby(document, before.document, before.arrangement, part);
    return near ? sendChange(document, near, before, false) : sendChange(document, arrange(document), before, true);
  },

  /** The rest of a song of which the parts near the one at work were sent; null where something newer was. */
  settle(id: number): EditedSong | null {
    const last = sent.at(-1);
    return last?.id === id ? sendChange(last.document, arrange(last.document), last, true) : null;
  },

  /** Opens a song as it was saved, to be played by these hands: nothing is taken on trust. */
  open(saved: unknown, hands: Hands): OpenedSong {
    const checked = checkDocument(saved);
    if (!checked.ok) return checked;
    const document = { ...checked.document, hands };
    const { id, arrangement } = send(document, arrange(document));
    return { ok: true, document, id, arrangement };
  },

  /** What the search has against another voicing of the chord that is struck at a place; null where nothing. */
  whyNot(document: Document, at: number, pitches: readonly string[]): VoicingFact | null {
    return explainAlternative(document, at, pitches);
  },

  /** Why the right hand's note at a place has its finger, and what the others would cost; null where none is struck. */
  whyFinger(document: Document, at: number): FingerReasons | null {
    return explainFingerAt(document, at);
  },

  /** What every school of voicing would cost in a stretch, and the shape of the chord at a place in it. */
  prices(document: Document, scope: Scope, at: number): SchoolPrice[] {
    return schoolPrices(document, arrange(document), scope, at);
  },

  /** Every version from the tune alone to full chords, and what would make a part or the song (null) easier. */
  ease(document: Document, range: TickRange | null): [LevelOption[], Ease[]] {
    const all = levelOptions(document, range);
    return [all, whatHelps(document, arrange(document), range, all)];
  },

  /** What had to change in a song for each of several hands, as against the first; the first itself stands at the head. */
  adapted(document: Document, hands: readonly Hands[]): AdaptedSong[] {
    const played = hands.map((h) => arrange({ ...document, hands: h }));
    return played.map((arrangement) => ({
      changes: adaptations(played[0], arrangement),
      difficulty: songDifficulty(arrangement.parts),
      troubles: arrangement.findings.filter((f) => f.severity === 'fix').map((f) => f.fact),
    }));
  },

  /** The song in all twelve keys. */
  keys(document: Document): KeyFacts[] {
    return compareKeys(document);
  },

  /** A made-up log of a demo song. */
  practised(document: Document, song: string, days: PractisedDays): Pass[] {
    return simulateLog(arrange(document), song, days);
  },

  /** What of a document a text file has no place for. */
  async leftOut(kind: TextFormat, document: Document): Promise<readonly Counted[]> {
    return (await formats()).leftOutOf(kind, document);
  },

  /** The staff as it is engraved here. */
  async page(document: Document): Promise<PageScore> {
    const { asPage, writeMusicXml } = await formats();
    const arrangement = arranged(document);
    const score = asPage(writtenScore(arrangement));
    const start = arrangement.bars.length > 1.5 * START_BARS ? writeMusicXml(score, START_BARS) : null;
    return { whole: writeMusicXml(score), start };
  },

  /** A document as a file; what is words in it names notes as asked. */
  async write(kind: ExportKind, document: Document, names: NoteNames): Promise<string | Uint8Array> {
    const f = await formats();
    const arrangement = arranged(document);
    switch (kind) {
      case 'musicxml':
        return f.writeMusicXml(writtenScore(arrangement));
      case 'midi':
        return f.writeMidi(...midiScore(arrangement));
      case 'letters':
        return f.writeLetters(arrangement.song, names);
      case 'abc':
        return f.writeAbc(arrangement.song);
      case 'chordpro':
        return f.writeChordPro(arrangement.song, wordLines(arrangement));
      case 'chart':
        return chartText(arrangement, wordsWith(names));
      case 'lesson':
        return lessonText(arrangement, wordsWith(names));
      case 'project':
        return f.writeProject(document);
    }
  },
};

export type ArrangerApi = typeof arranger;

expose(arranger);
