import {
  SCHOOL_LABELS,
  STAY_RHYTHM_LABELS,
  VOCABULARY_LABELS,
  HARMONIC_RHYTHM_LABELS,
  BASS_LABELS,
  TIMING_LABELS,
  TUNE_RHYTHM_LABELS,
  STAY_NOTE_LABELS,
} from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { USUAL_SUGGESTION, suggestionFor, usualSchool, type SchoolPrice } from '@joined-hands/core/arrange';
import { HARMONIC_RHYTHMS, VOCABULARIES } from '@joined-hands/core/harmony';
import { countNotes } from '@joined-hands/core/join';
import {
  BASS_WISHES,
  CHORD_TIMINGS,
  SCHOOLS,
  STAY_FIGURES,
  STAY_NOTES,
  TUNE_RHYTHMS,
  passageAt,
  settingAt,
  type BassWish,
  type ChordTiming,
  type Choices,
  type TickRange,
  type TuneRhythm,
  type School,
  type Stay,
  type Suggesting,
  type Edit,
  rangeOf,
} from '@joined-hands/core/song';
import { countIn } from '@joined-hands/core/time';
import { Actions } from '../../platform/state/actions';
import { Words } from '../../platform/words';
import { DeskStore } from '../../platform/state/desk.store';
import { Choice } from '../../ui/choice';
import { LittleKeyboard, octavesOf } from '../../ui/little-keyboard';
import { Pop } from '../../ui/pop';
import { DifficultyPanel } from './difficulty';
import { LayersPanel } from './layers-panel';
import { LeftWishes } from './left-wishes';
import { SoundPanel } from './sound-panel';
import { TexturePanel } from './texture-panel';
import { Workers } from '../../platform/workers/workers';

/** How far a wish reaches. */
type Reach = 'chord' | 'part' | 'song';

type OctaveId = '-1' | '0' | '1';

interface PricedSchool extends SchoolPrice {
  readonly name: string;
  readonly words: string;
  /** Share of the widest travel, for the bar. */
  readonly share: number;
  /** What it costs more or less than what is there now. */
  readonly against: string;
}

/** What the left hand is asked for: its school, its bass line, where its chords come from; and a resting right hand. */
@Component({
  selector: 'jh-hand-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [LittleKeyboard, Choice, DifficultyPanel, LayersPanel, LeftWishes, Pop, SoundPanel, TexturePanel],
  templateUrl: './hand-bar.html',
  styleUrl: './hand-bar.less',
})
export class HandBar {
  protected readonly desk = inject(DeskStore);
  private readonly words = inject(Words);
  private readonly workers = inject(Workers);
  protected readonly reach = signal<Reach>('song');
  private readonly prices = signal<readonly SchoolPrice[]>([]);
  protected readonly vocabularies = VOCABULARIES.map((id) => ({ id, text: VOCABULARY_LABELS[id] }));
  protected readonly rhythms = HARMONIC_RHYTHMS.map((id) => ({ id, text: HARMONIC_RHYTHM_LABELS[id] }));
  protected readonly basses = BASS_WISHES.map((id) => ({ id, text: BASS_LABELS[id] }));
  protected readonly timings = CHORD_TIMINGS.map((id) => ({ id, text: TIMING_LABELS[id] }));
  protected readonly rhythmsOfTune = TUNE_RHYTHMS.map((id) => ({ id, text: TUNE_RHYTHM_LABELS[id] }));
  protected readonly octaves: readonly { id: OctaveId; text: string }[] = [
    { id: '-1', text: $localize`down` },
    { id: '0', text: $localize`as written` },
    { id: '1', text: $localize`up` },
  ];
  protected readonly stayNotes = [
    { id: 'tune' as const, text: $localize`the melody` },
    ...STAY_NOTES.map((id) => ({ id, text: STAY_NOTE_LABELS[id] })),
  ];
  protected readonly figures = STAY_FIGURES.map((id) => ({ id, text: STAY_RHYTHM_LABELS[id] }));

  private readonly passage = computed(() => {
    const part = this.desk.currentPart();
    const doc = this.desk.document();
    return part && doc ? passageAt(doc.choices.passages, part.start) : null;
  });

  protected readonly reaches = computed((): readonly { id: Reach; text: string }[] => [
    ...(this.desk.selectedChord() ? [{ id: 'chord' as const, text: $localize`This chord` }] : []),
    { id: 'part', text: $localize`Part ${this.desk.currentPart()?.number ?? ''}` },
    { id: 'song', text: $localize`Whole song` },
  ]);

  protected readonly suggestReaches = computed(() => this.reaches().filter((r) => r.id !== 'chord'));

  /** The school of the selected chord, else of the part, else of the song. */
  protected readonly school = computed((): School => {
    const chord = this.desk.selectedChord() ?? this.desk.currentPart()?.chords[0];
    const doc = this.desk.document();
    return chord?.school ?? doc?.choices.school ?? (doc ? usualSchool(doc) : 'close');
  });
  protected readonly schoolName = computed(() => SCHOOL_LABELS[this.school()].name);

  /** The octaves in which the shapes of all schools lie. */
  protected readonly shapeRange = computed(() => octavesOf(this.prices().flatMap((p) => p.shape)));
  protected readonly priced = computed((): PricedSchool[] => {
    const prices = this.prices();
    const widest = Math.max(1, ...prices.map((p) => p.travel));
    const now = prices.find((p) => p.school === this.school());
    return prices.map((p) => ({
      ...p,
      name: SCHOOL_LABELS[p.school].name,
      words: SCHOOL_LABELS[p.school].about,
      share: Math.round((100 * p.travel) / widest),
      against: !now || p.school === now.school ? 'now' : difference(p.travel - now.travel),
    }));
  });

  protected readonly bass = computed(() => {
    const doc = this.desk.document();
    const own = this.reach() === 'song' ? null : this.passage()?.bass;
    return own ?? doc?.choices.bass ?? 'free';
  });

  /** How the chords here are suggested, or null where they are the song's own. */
  protected readonly suggesting = computed((): Suggesting | null => {
    const doc = this.desk.document();
    return this.passage()?.suggest ?? (doc ? suggestionFor(doc) : null);
  });
  protected readonly bare = computed(() => this.desk.document()?.song.chords.length === 0);
  protected readonly chordsValue = computed(() => {
    const suggesting = this.suggesting();
    return suggesting ? $localize`suggested, ${VOCABULARY_LABELS[suggesting.vocabulary]}` : $localize`as given`;
  });

  protected readonly timing = computed(() => this.wish('timing') ?? 'written');
  /** What the timing does here: how many chords of the part are struck elsewhere than they are written. */
  protected readonly timingSays = computed(() => {
    const moved = (this.desk.currentPart()?.chords ?? []).filter((c) => c.at !== c.writtenAt);
    if (this.timing() === 'written') return '';
    const counts = moved.map((c) => countIn(this.desk.arrangement()?.bars ?? [], c.at));
    return this.words.say().fact({ code: 'screen.chords-move', counts });
  });
  protected readonly rhythmOfTune = computed(() => this.wish('rhythm') ?? 'sung');
  protected readonly rhythmSays = computed(() => {
    const part = this.desk.currentPart();
    const ahead = countNotes(part?.melody ?? [], this.desk.arrangement()?.bars ?? []).filter((n) => n.syncopated).length;
    if (this.rhythmOfTune() === 'plain') return $localize`to learn first`;
    return this.words.say().fact({ code: 'screen.notes-ahead', notes: ahead });
  });
  protected readonly octave = computed(() => `${this.wish('octave') ?? 0}` as OctaveId);
  /** Parts that repeat an earlier one and lie no higher than it does. */
  private readonly again = computed(() => {
    const doc = this.desk.document();
    const parts = this.desk.arrangement()?.parts ?? [];
    return parts.filter((p) => {
      const first = p.repeats?.kind === 'exact' || p.repeats?.kind === 'new-ending' ? parts[p.repeats.part - 1] : null;
      return doc && first && settingAt(doc, p.start, 'octave') <= settingAt(doc, first.start, 'octave');
    });
  });
  protected readonly canRiseAgain = computed(() => this.again().length > 0);

  protected readonly stay = computed(() => this.passage()?.stay ?? null);
  protected readonly rightValue = computed(() => {
    const stay = this.stay();
    if (stay) return $localize`stays on ${STAY_NOTE_LABELS[stay.notes]}`;
    const octave = { '-1': $localize`an octave down`, '0': '', '1': $localize`an octave up` }[this.octave()];
    return (
      [this.rhythmOfTune() === 'plain' ? $localize`straightened` : '', octave].filter(Boolean).join(', ') || $localize`as sung`
    );
  });

  /** What is wished for: in the part at work, or in the song. */
  private wish<K extends 'timing' | 'rhythm' | 'octave'>(wish: K): Choices[K] | null {
    const doc = this.desk.document();
    const part = this.desk.currentPart();
    return doc ? settingAt(doc, part?.start ?? 0, wish) : null;
  }

  /** The current part, or null for the whole song. */
  protected reached(): TickRange | null {
    const part = this.desk.currentPart();
    return this.reach() !== 'song' && part ? rangeOf(part) : null;
  }

  protected chooseTiming(timing: ChordTiming): void {
    void this.desk.edit({ code: 'edit.setting', range: this.reached(), setting: 'timing', value: timing });
  }

  protected chooseRhythm(rhythm: TuneRhythm): void {
    void this.desk.edit({ code: 'edit.setting', range: this.reached(), setting: 'rhythm', value: rhythm });
  }

  protected chooseOctave(octave: OctaveId): void {
    void this.desk.edit({ code: 'edit.setting', range: this.reached(), setting: 'octave', value: Number(octave) });
  }

  /** Every part that comes again is played an octave above the first time. */
  protected higherAgain(): void {
    const doc = this.desk.document();
    if (!doc) return;
    const edits = this.again().map((part): Edit => {
      const value = settingAt(doc, part.start, 'octave') + 1;
      return { code: 'edit.setting', range: rangeOf(part), setting: 'octave', value };
    });
    void this.desk.edit({ code: 'edit.several', as: { kind: 'octave-again' }, edits });
  }

  protected chooseReach(reach: Reach): void {
    this.reach.set(reach);
    void this.compare();
  }

  /** Works out what every school costs where it would hold; away from the page, since it arranges nine times. */
  protected async compare(open = true): Promise<void> {
    const document = this.desk.document();
    const arrangement = this.desk.arrangement();
    if (!open || !document || !arrangement) return;
    if (this.reach() === 'chord' && !this.desk.selectedChord()) this.reach.set('part');
    const chord = this.desk.selectedChord();
    const part = this.desk.currentPart();
    const reach = this.reach();
    const whole = { start: 0, end: arrangement.song.length };
    const scope =
      reach === 'chord' && chord ? { start: chord.at, end: chord.at + chord.length } : reach === 'part' && part ? part : whole;
    const at = chord?.at ?? part?.start ?? scope.start;
    const prices = await this.workers.arranger.call('prices', document, { start: scope.start, end: scope.end }, at);
    if (prices.ok) this.prices.set(prices.value);
  }

  constructor() {
    inject(Actions).register(() =>
      SCHOOLS.map((school) => ({
        name: $localize`Left hand: ${SCHOOL_LABELS[school].name}${this.reach() === 'song' ? '' : ', this ' + this.reach()}`,
        run: () => void this.chooseSchool(school),
      })),
    );
  }

  protected async chooseSchool(school: School): Promise<void> {
    const chord = this.desk.selectedChord();
    if (this.reach() !== 'chord') await this.desk.edit({ code: 'edit.school', range: this.reached(), school });
    else if (chord) await this.desk.edit({ code: 'edit.chord-school', at: chord.symbolAt, school });
    await this.compare();
  }

  protected chooseBass(bass: BassWish): void {
    void this.desk.edit({ code: 'edit.bass', range: this.reached(), bass });
  }

  protected suggest(change: Partial<Suggesting> | null): void {
    const suggest = change === null ? null : { ...(this.suggesting() ?? USUAL_SUGGESTION), ...change };
    void this.desk.edit({ code: 'edit.suggest', range: this.reached(), suggest });
  }

  protected stayOn(notes: Stay['notes'] | 'tune'): void {
    this.chooseStay(notes === 'tune' ? null : { notes });
  }

  protected chooseStay(change: Partial<Stay> | null): void {
    const part = this.desk.currentPart();
    if (!part) return;
    const stay =
      change === null ? null : { ...(this.stay() ?? { notes: 'tonic' as const, figure: 'counts' as const }), ...change };
    void this.desk.edit({ code: 'edit.stay', range: rangeOf(part), stay });
  }

  protected readonly schools = SCHOOLS;
}

function difference(by: number): string {
  return by === 0 ? $localize`the same` : by > 0 ? $localize`${by} more` : $localize`${-by} less`;
}
