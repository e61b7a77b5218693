import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { spellKeys, type PartChord } from '@joined-hands/core/arrange';
import { WRITTEN } from '@joined-hands/core/fills';
import { givenTo, type ChordStretch } from '@joined-hands/core/left-hand';
import { midiOf } from '@joined-hands/core/pitch';
import type { Edit } from '@joined-hands/core/song';
import { barAt, countAt, countTicks, offsetInBar } from '@joined-hands/core/time';
import { KeyInput } from '../../platform/input/key-input';
import { DeskStore } from '../../platform/state/desk.store';
import { Words } from '../../platform/words';
import { Choice } from '../../ui/choice';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { withKey } from './pressed-keys';

/** Into how many places a count is divided. */
const DIVISIONS = [
  { id: '1', text: $localize`counts` },
  { id: '2', text: $localize`halves` },
  { id: '4', text: $localize`quarters` },
] as const;
type Division = (typeof DIVISIONS)[number]['id'];

/** A place in the stretch of a chord: how it is counted, and the keys that are struck there; none where keys are let go. */
interface Place {
  readonly at: number;
  readonly count: string;
  readonly midis: readonly number[] | null;
}

/** A left hand of one's own for a chord: keys at its counts, and the same figure given to the chord that comes next. */
@Component({
  selector: 'jh-own-left',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Pressed, Signs],
  template: `
    <div class="acts">
      <button i18n type="button" class="btn small" [jhPressed]="open()" data-testid="own-left" (click)="toggle()">
        Write the left hand here
      </button>
      @if (next(); as following) {
        <button type="button" class="btn small" data-testid="give" (click)="give(following)">
          <span i18n>Give this to <jh-signs [text]="words.say().symbol(following.symbol)" />, which comes next</span>
        </button>
      }
    </div>
    @if (open()) {
      <div class="panel">
        <jh-choice
          class="small"
          i18n-label
          label="Divide each count into"
          [entries]="divisions"
          [value]="division()"
          (chosen)="divide($event)"
        />
        <div class="counts" role="group" i18n-aria-label aria-label="Counts of this chord">
          @for (place of places(); track place.at) {
            <button class="btn small" data-testid="own-count" [jhPressed]="place.at === here()" (click)="here.set(place.at)">
              {{ place.count }}
              <small>
                @if (place.midis === null) {
                  –
                } @else if (place.midis.length === 0) {
                  <ng-container i18n>let go</ng-container>
                } @else {
                  <jh-signs [text]="named(place.midis)" />
                }
              </small>
            </button>
          }
        </div>
        <p i18n class="told">Choose a count and press its keys on the keyboard. Press a key again to take it away.</p>
        <div class="acts">
          <button i18n type="button" class="btn small" (click)="write([])">Let go here</button>
          <button i18n type="button" class="btn small" (click)="write(null)">Hold on here</button>
          <button i18n type="button" class="btn small main" (click)="keep()">Keep this left hand</button>
        </div>
      </div>
    }
    @if (told(); as sentence) {
      <p class="told" role="status" data-testid="given"><jh-signs [text]="sentence" /></p>
    }
  `,
  styles: `
    :host {
      display: block;
      margin: 10px 0;
    }
    .counts,
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin: 8px 0;
    }
    small {
      display: block;
      color: var(--left);
    }
    .counts .on small {
      color: inherit;
    }
    .told {
      margin: 8px 0;
    }
  `,
})
export class OwnLeft {
  readonly chord = input.required<PartChord>();
  /** The keys at the count that is written, to be shown on the keyboard; null when it is done. */
  readonly tried = output<readonly string[] | null>();
  protected readonly words = inject(Words);
  private readonly desk = inject(DeskStore);
  protected readonly divisions = DIVISIONS;
  private readonly at = computed(() => this.chord().at);
  protected readonly open = linkedSignal<number, boolean>({ source: this.at, computation: () => false });
  protected readonly here = linkedSignal(this.at);
  protected readonly told = linkedSignal<number, string>({ source: this.at, computation: () => '' });
  protected readonly division = linkedSignal<number, Division>({ source: this.at, computation: () => '1' });
  /** Keys by the places where they are struck. */
  private readonly written = linkedSignal<number, ReadonlyMap<number, readonly number[]>>({
    source: this.at,
    computation: () => new Map(),
  });

  protected readonly places = computed((): Place[] => {
    const { at, length } = this.chord();
    const bars = this.desk.arrangement()?.bars ?? [];
    const { meter } = barAt(bars, at);
    const step = countTicks(meter) / Number(this.division());
    const written = this.written();
    return Array.from({ length: Math.ceil(length / step) }, (_, k): Place => {
      const place = at + Math.round(k * step);
      const { beat, between } = countAt(offsetInBar(barAt(bars, place), place), meter);
      return { at: place, count: between || `${beat}`, midis: written.get(place) ?? null };
    });
  });

  /** The next chord of the song, where this one has a left hand of its own that could be given to it. */
  protected readonly next = computed((): ChordStretch | null => {
    const { at } = this.chord();
    const chords = this.desk.arrangement()?.parts.flatMap((p) => p.chords) ?? [];
    const following = chords[chords.findIndex((c) => c.at === at) + 1];
    return following && this.chord().dressed?.texture === WRITTEN ? following : null;
  });

  constructor() {
    inject(KeyInput)
      .pressedKeys.pipe(takeUntilDestroyed())
      .subscribe((midi) => {
        if (this.open()) this.write(withKey(this.written().get(this.here()) ?? [], midi));
      });
  }

  protected named(midis: readonly number[]): string {
    return this.words.say().pitches(this.spelled(midis));
  }

  private spelled(midis: readonly number[]): readonly string[] {
    const key = this.desk.arrangement()?.song.key ?? { tonic: 'C', mode: 'major' as const };
    return spellKeys(midis, this.chord().symbol, key);
  }

  /** Opens with what is played now, where that stands on the counts. */
  protected toggle(): void {
    const { dressed, struck } = this.chord();
    this.open.update((on) => !on);
    this.tried.emit(null);
    if (!this.open()) return;
    const notes = dressed?.notes ?? struck;
    this.division.set(this.coarsest(notes.map((n) => n.at)));
    const byPlace = new Map<number, number[]>();
    for (const { at, pitch } of notes) byPlace.set(at, [...(byPlace.get(at) ?? []), midiOf(pitch)]);
    this.written.set(byPlace);
  }

  /** The division on which all of some places stand; the finest where none has them all. */
  private coarsest(places: readonly number[]): Division {
    const count = countTicks(barAt(this.desk.arrangement()?.bars ?? [], this.chord().at).meter);
    const stands = (d: Division) => places.every((p) => (p - this.chord().at) % (count / Number(d)) === 0);
    return DIVISIONS.find(({ id }) => stands(id))?.id ?? '4';
  }

  protected divide(division: Division): void {
    this.division.set(division);
    // What falls between the counts that are left is not there any more.
    const kept = new Set(this.places().map((p) => p.at));
    this.written.update((written) => new Map([...written].filter(([at]) => kept.has(at))));
    if (!kept.has(this.here())) this.here.set(this.chord().at);
  }

  /** Writes keys at the chosen count; none where keys are let go, null where what sounds is held on. */
  protected write(midis: readonly number[] | null): void {
    const written = new Map(this.written());
    if (midis === null) written.delete(this.here());
    else written.set(this.here(), midis);
    this.written.set(written);
    this.tried.emit(midis && midis.length > 0 ? this.spelled(midis) : null);
  }

  protected keep(): void {
    const { at, length, symbol } = this.chord();
    const struck = this.places().filter((p) => p.midis !== null);
    const notes = struck.flatMap(({ at: from, midis }, i) =>
      this.spelled(midis ?? []).map((pitch) => ({ at: from, length: (struck[i + 1]?.at ?? at + length) - from, pitch })),
    );
    this.tried.emit(null);
    this.open.set(false);
    void this.desk.edit(this.writes({ at, length, symbol }, notes, false));
  }

  /** The same figure on the chord that comes next; what had to give way there is told. */
  protected give(to: ChordStretch): void {
    const arrangement = this.desk.arrangement();
    const { at, length, symbol, dressed } = this.chord();
    const notes = (dressed?.notes ?? []).map((n) => ({ at: n.at, length: n.length, pitch: n.pitch }));
    const given = arrangement && givenTo(notes, { at, length, symbol }, to, arrangement.song.key);
    if (!given) {
      this.told.set($localize`The next chord has no notes to give it to.`);
      return;
    }
    void this.desk.edit(this.writes(to, given.notes, true)).then(() => {
      const say = this.words.say();
      const stands = [...new Set(given.bent.map((b) => b.pitch))];
      const bent = stands.length > 0 ? ` ${say.fact({ code: 'screen.stands-in', notes: stands })}` : '';
      this.told.set($localize`${say.symbol(to.symbol)} has it too.${bent}`);
    });
  }

  private writes(
    { at, length, symbol }: ChordStretch,
    notes: readonly { at: number; length: number; pitch: string }[],
    given: boolean,
  ): Edit {
    const range = { start: at, end: at + length };
    return {
      code: 'edit.several',
      as: { kind: 'own-left', symbol, given },
      edits: [
        { code: 'edit.left', at, length, notes },
        { code: 'edit.setting', range, setting: 'texture', value: notes.length > 0 ? WRITTEN : 'block' },
      ],
    };
  }
}
