import type { Key } from '../harmony/key.js';
import { barTicks, meterFrom, meterName, type Meter } from '../time/meter.js';
import type { Document } from './decisions.js';
import type { Song } from './song.js';
import { oneLine } from './text.js';

/** What is written over a song, as it may be put right: none of it moves a note. */
export interface SongFacts {
  readonly title: string;
  readonly composer: string | null;
  /** The key as it is read. To play the song in another key is {@link transposeDocument}. */
  readonly key: Key;
  readonly meter: Meter;
  /** Quarter notes a minute, 20 to 400. */
  readonly tempo: number;
}

/** Letters of a title and of credits. */
const LONGEST = 200;

const METERS: readonly Meter[] = ['2/2', '2/4', '3/4', '4/4', '5/4', '6/4', '3/8', '6/8', '9/8', '12/8'].map(meterFrom);

/**
 * Meters that a song can be read in: its own, and those that divide it into whole bars after a pick-up shorter than a bar. A song that
 * changes its meter has its own alone.
 */
export function metersFor(song: Pick<Song, 'meters' | 'length' | 'pickup'>): Meter[] {
  const own = { beats: song.meters[0].beats, unit: song.meters[0].unit };
  if (song.meters.length > 1) return [own];
  const fits = (meter: Meter) => {
    const bar = barTicks(meter);
    return song.pickup < bar && (song.length - song.pickup) % bar === 0;
  };
  return [own, ...METERS.filter((m) => meterName(m) !== meterName(own) && fits(m))];
}

/** A document with the facts of its song put right. A title is never empty, and a meter that the song does not divide into is left out. */
export function changeFacts(doc: Document, { title, composer, key, meter, tempo }: Partial<SongFacts>): Document {
  const { song } = doc;
  const fits = meter && song.meters.length === 1 && metersFor(song).some((m) => meterName(m) === meterName(meter));
  return {
    ...doc,
    song: {
      ...song,
      title: oneLine(title ?? '', LONGEST) || song.title,
      composer: composer === undefined ? song.composer : oneLine(composer ?? '', LONGEST) || null,
      key: key ?? song.key,
      meters: fits ? [{ at: 0, beats: meter.beats, unit: meter.unit as Song['meters'][0]['unit'] }] : song.meters,
      tempo: tempo ?? song.tempo,
    },
  };
}
