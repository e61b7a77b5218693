import { expose } from 'comlink';
import {
  arrange,
  chartText,
  checkDocument,
  compareKeys,
  lessonText,
  practised,
  schoolPrices,
  versions,
  whatHelps,
  writtenScore,
  type Arrangement,
  type Document,
  type Ease,
  type KeyFacts,
  type Pass,
  type PartRange,
  type PractisedDays,
  type SchoolPrice,
  type Scope,
  type SongCard,
  type Version,
} from '@joined-hands/core';

import { difference, type ArrangementPatch } from './arrangement-patch';

/** Files a document can be written as. */
export type ExportKind = 'musicxml' | 'midi' | 'letters' | 'abc' | 'chart' | 'lesson' | 'project';

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
}

interface Sent {
  readonly id: number;
  readonly arrangement: Arrangement;
}

/** The last that was sent. */
let last: Sent | null = null;
const sent = (arrangement: Arrangement): Sent => (last = { id: (last?.id ?? 0) + 1, arrangement });

const arranger = {
  arrange(document: Document): Arrangement {
    return arrange(document);
  },

  /** Arranges a song that was edited: all of it, or what is no longer the same as in the answer that the page still has. */
  edit(document: Document, base: number | null): EditedSong {
    const arrangement = arrange(document);
    const before = last?.id === base ? last.arrangement : null;
    const { id } = sent(arrangement);
    return { id, change: before ? { patch: difference(before, arrangement) } : { whole: arrangement } };
  },

  /** Opens a song as it was saved: nothing is taken on trust. */
  open(saved: unknown): OpenedSong {
    const checked = checkDocument(saved);
    if (!checked.ok) return checked;
    const { document } = checked;
    return { ok: true, document, ...sent(arrange(document)) };
  },

  /** What every school of voicing would cost in a stretch. */
  prices(document: Document, scope: Scope): SchoolPrice[] {
    return schoolPrices(document, arrange(document), scope);
  },

  /** Every version from the tune alone to full chords, and what would make a part or the song (null) easier. */
  ease(document: Document, range: PartRange | null): [Version[], Ease[]] {
    const all = versions(document, range);
    return [all, whatHelps(document, arrange(document), range, all)];
  },

  /** The song in all twelve keys. */
  keys(document: Document): KeyFacts[] {
    return compareKeys(document);
  },

  /** A made-up log of a demo song. */
  practised(document: Document, song: string, days: PractisedDays): Pass[] {
    return practised(arrange(document), song, days);
  },

  async write(kind: ExportKind, document: Document): Promise<string | Uint8Array> {
    const f = await formats();
    const arrangement = arrange(document);
    switch (kind) {
      case 'musicxml':
        return f.writeMusicXml(writtenScore(arrangement));
      case 'midi':
        return f.writeMidi(arrangement.song, arrangement.score, arrangement.pedal, arrangement.tempo);
      case 'letters':
        return f.writeLetters(arrangement.song);
      case 'abc':
        return f.writeAbc(arrangement.song);
      case 'chart':
        return chartText(arrangement);
      case 'lesson':
        return lessonText(arrangement);
      case 'project':
        return f.writeProject(document);
    }
  },
};

export type ArrangerApi = typeof arranger;

expose(arranger);
