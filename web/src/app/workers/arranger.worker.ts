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

/** Files a document can be written as. */
export type ExportKind = 'musicxml' | 'midi' | 'letters' | 'abc' | 'chart' | 'lesson' | 'project';

/** The readers and writers are large and rarely needed: they load with the first file. */
const formats = () => import('@joined-hands/core/formats');

/** A song as it was saved, checked and arranged; or why it cannot be opened. */
export type OpenedSong =
  | { readonly ok: true; readonly document: Document; readonly arrangement: Arrangement }
  | { readonly ok: false; readonly title: string; readonly fault: NonNullable<SongCard['fault']> };

const arranger = {
  arrange(document: Document): Arrangement {
    return arrange(document);
  },

  /** Opens a song as it was saved: nothing is taken on trust. */
  open(saved: unknown): OpenedSong {
    const checked = checkDocument(saved);
    return checked.ok ? { ok: true, document: checked.document, arrangement: arrange(checked.document) } : checked;
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
