import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { spellKeys, type PartChord } from '@joined-hands/core/arrange';
import { WRITTEN } from '@joined-hands/core/fills';
import { givenTo, keysOnPlaces, type ChordStretch, type PlayedKey } from '@joined-hands/core/left-hand';
import { midiOf } from '@joined-hands/core/pitch';
import type { Edit, KeysOf } from '@joined-hands/core/song';
import { barAt, countAt, countTicks, offsetInBar } from '@joined-hands/core/time';
import { Player } from '../../platform/audio/player';
import { scheduleStretch, type Plan } from '../../platform/audio/schedule';
import { KeyInput, type KeyPress } from '../../platform/input/key-input';
import { DeskStore } from '../../platform/state/desk.store';
import { Words } from '../../platform/words';
import { Choice } from '../../ui/choice';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { withKey } from './pressed-keys';

/** Into how many places a count is divided. */
const DIVISIONS = [
  { id: '1', text: $localize`counts` },
  { id: '2', text: $localize`half counts` },
  { id: '4', text: $localize`quarters` },
] as const;
type Division = (typeof DIVISIONS)[number]['id'];

/** A place in the stretch of a chord: how it is counted, and the keys that are struck there; none where keys are let go. */
interface Place {
  readonly at: number;
  readonly count: string;
  /** The number of the bar that begins here; null elsewhere, and where one bar is all there is. */
  readonly bar: number | null;
  readonly midis: readonly number[] | null;
}

/** How far what is written reaches. */
type Scope = 'chord' | 'bar' | 'part';
const SCOPES: Readonly<Record<Scope, string>> = {
  chord: $localize`for this chord`,
  bar: $localize`for this bar`,
  part: $localize`for the part`,
};

/**
 * Keys of one's own, at the counts of a chord, a bar or a part: the left hand, or a second voice of the right. They are pressed count by
 * count, or played in to the other hand; a figure of the left can be given to the chord that comes next.
 */
@Component({
  selector: 'jh-own-hand',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.inner]': "hand() === 'inner'" },
  imports: [Choice, Pressed, Signs],
  template: `
    <div class="acts">
      <button type="button" class="btn small" [jhPressed]="open()" data-testid="own-hand" (click)="toggle()">
        @if (hand() === 'left') {
          <ng-container i18n>Write the left hand here</ng-container>
        } @else {
          <ng-container i18n>Write a second voice here</ng-container>
        }
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
          label="Write it for"
          [entries]="scopes()"
          [value]="scope()"
          (chosen)="reach($event)"
        />
        <jh-choice
          class="small"
          i18n-label
          label="Divide each count into"
          [entries]="divisions"
          [value]="division()"
          (chosen)="divide($event)"
        />
        <div class="counts" role="group" i18n-aria-label aria-label="Counts">
          @for (place of places(); track place.at) {
            <button class="btn small" data-testid="own-count" [jhPressed]="place.at === here()" (click)="here.set(place.at)">
              @if (place.bar !== null) {
                <small i18n class="bar">bar {{ place.bar }}</small>
              }
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
          @if (recording()) {
            <button i18n type="button" class="btn small" (click)="player.stop()">Stop</button>
            <span i18n role="status">Play along: after the bar that is counted, your keys are written down.</span>
          } @else {
            <button i18n type="button" class="btn small" data-testid="play-in-hand" (click)="playIn()">Play it in</button>
          }
        </div>
        <div class="acts">
          <button i18n type="button" class="btn small" (click)="write([])">Let go here</button>
          <button i18n type="button" class="btn small" (click)="write(null)">Hold on here</button>
          <button type="button" class="btn small main" data-testid="keep-hand" (click)="keep()">
            @if (hand() === 'left') {
              <ng-container i18n>Keep this left hand</ng-container>
            } @else {
              <ng-container i18n>Keep this second voice</ng-container>
            }
          </button>
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
    .panel jh-choice {
      display: block;
      margin: 8px 0;
    }
    .counts {
      max-height: 40vh;
      overflow-y: auto;
    }
    small {
      display: block;
      color: var(--left);
    }
    :host(.inner) small {
      color: var(--right);
    }
    small.bar,
    :host(.inner) small.bar {
      color: var(--soft);
    }
    .counts .on small {
      color: inherit;
    }
    .told {
      margin: 8px 0;
    }
  `,
})
export class OwnHand {
  readonly hand = input.required<KeysOf>();
  /** The chord that is written for, where there is one; and the place of what is chosen. */
  readonly chord = input<PartChord | null>(null);
  readonly place = input.required<number>();
  /** The keys at the count that is written, to be shown on the keyboard; null when it is done. */
  readonly tried = output<readonly string[] | null>();
  protected readonly words = inject(Words);
  protected readonly player = inject(Player);
  private readonly desk = inject(DeskStore);
  protected readonly divisions = DIVISIONS;
  private readonly at = computed(() => this.place());
  protected readonly open = linkedSignal<number, boolean>({ source: this.at, computation: () => false });
  protected readonly told = linkedSignal<number, string>({ source: this.at, computation: () => '' });
  protected readonly division = linkedSignal<number, Division>({ source: this.at, computation: () => '1' });
  protected readonly scopes = computed(() => {
    const all: readonly Scope[] = this.chord() ? ['chord', 'part'] : ['bar', 'part'];
    return all.map((id) => ({ id, text: SCOPES[id] }));
  });
  protected readonly scope = linkedSignal<number, Scope>({
    source: this.at,
    computation: () => (this.chord() ? 'chord' : 'bar'),
  });

  /** From where to where is written, in ticks. */
  private readonly stretch = computed((): { at: number; length: number } => {
    const [at, chord, part] = [this.at(), this.chord(), this.desk.currentPart()];
    const bar = barAt(this.desk.arrangement()?.bars ?? [], at);
    if (this.scope() === 'part' && part) return { at: part.start, length: part.end - part.start };
    if (this.scope() === 'chord' && chord) return { at: chord.at, length: chord.length };
    return { at: bar.start, length: bar.end - bar.start };
  });
  private readonly from = computed(() => this.stretch().at);
  protected readonly here = linkedSignal(this.from);
  /** Keys by the places where they are struck. */
  private readonly written = linkedSignal<number, ReadonlyMap<number, readonly number[]>>({
    source: this.at,
    computation: () => new Map(),
  });

  protected readonly places = computed((): Place[] => {
    const { at, length } = this.stretch();
    const bars = this.desk.arrangement()?.bars ?? [];
    const { meter } = barAt(bars, at);
    const step = countTicks(meter) / Number(this.division());
    const written = this.written();
    let bar: number | null = null;
    return Array.from({ length: Math.ceil(length / step) }, (_, k): Place => {
      const place = at + Math.round(k * step);
      const around = barAt(bars, place);
      const { beat, between } = countAt(offsetInBar(around, place), meter);
      const turns = this.scope() === 'part' && around.number !== bar;
      bar = around.number;
      return { at: place, count: between || `${beat}`, bar: turns ? bar : null, midis: written.get(place) ?? null };
    });
  });

  /** The next chord of the song, where this one has a left hand of its own that could be given to it. */
  protected readonly next = computed((): ChordStretch | null => {
    const own = this.chord();
    if (!own || own.dressed?.texture !== WRITTEN) return null;
    const chords = this.desk.arrangement()?.parts.flatMap((p) => p.chords) ?? [];
    return chords[chords.findIndex((c) => c.at === own.at) + 1] ?? null;
  });

  /** What is being played in: the plan that is heard, and the keys so far; null where nothing is. */
  protected readonly recording = signal<{ readonly plan: Plan; readonly keys: PlayedKey[] } | null>(null);

  constructor() {
    const keys = inject(KeyInput);
    keys.pressed.pipe(takeUntilDestroyed()).subscribe((press) => {
      if (!this.open()) return;
      if (this.recording()) this.take(press);
      else this.write(withKey(this.written().get(this.here()) ?? [], press.midi));
    });
    keys.released.pipe(takeUntilDestroyed()).subscribe((midi) => this.letGo(midi));
    let playing = false;
    effect(() => {
      const now = this.player.state() === 'playing';
      if (playing && !now) untracked(() => this.endRecording());
      playing = now;
      // Something else was chosen: what is played now is not for it.
      if (!this.open() && this.recording()) untracked(() => this.player.stop());
    });
    inject(DestroyRef).onDestroy(() => this.recording() && this.player.stop());
  }

  /** Plays the other hand with the click, a bar counted first, and writes down what is pressed meanwhile. */
  protected async playIn(): Promise<void> {
    const arrangement = this.desk.arrangement();
    if (!arrangement) return;
    const { at, length } = this.stretch();
    const hands = this.hand() === 'left' ? 'right' : 'left';
    const plan = scheduleStretch(arrangement, at, at + length, {
      hands,
      plain: false,
      tempo: arrangement.song.tempo,
      countIn: true,
      click: true,
    });
    await this.player.play(plan);
    if (this.player.state() === 'playing') this.recording.set({ plan, keys: [] });
  }

  private placeNow({ plan }: { readonly plan: Plan }, time: number): number {
    const heard = time - this.player.began - plan.lead;
    const { at } = this.stretch();
    // Before its first beat the stretch is counted: what is early by a little is of that beat.
    return heard < 0 ? at + (heard / plan.lead) * this.stretch().length : plan.placeAt(heard);
  }

  private take({ midi, time }: KeyPress): void {
    const now = this.recording();
    now?.keys.push({ at: this.placeNow(now, time), until: null, midi });
  }

  private letGo(midi: number): void {
    const now = this.recording();
    const last = now?.keys.findLastIndex((k) => k.midi === midi && k.until === null) ?? -1;
    if (now && last >= 0) now.keys[last] = { ...now.keys[last], until: this.placeNow(now, performance.now() / 1000) };
  }

  private endRecording(): void {
    const now = this.recording();
    if (!now) return;
    this.recording.set(null);
    if (!this.open()) return;
    if (now.keys.length === 0) {
      this.told.set($localize`No key was pressed, so nothing has changed.`);
      return;
    }
    const { at, length } = this.stretch();
    this.written.set(
      keysOnPlaces(
        now.keys,
        this.places().map((p) => p.at),
        at + length,
      ),
    );
    this.told.set($localize`Written down as you played it. Check it count by count, then keep it.`);
  }

  protected named(midis: readonly number[]): string {
    return this.words.say().pitches(this.spelled(midis));
  }

  private spelled(midis: readonly number[]): readonly string[] {
    const key = this.desk.arrangement()?.song.key ?? { tonic: 'C', mode: 'major' as const };
    const chords = this.desk.currentPart()?.chords ?? [];
    const under = this.chord() ?? chords.findLast((c) => c.at <= this.here());
    return spellKeys(midis, under?.symbol ?? '', key);
  }

  /** Opens with what is played now, where that stands on the counts. */
  protected toggle(): void {
    this.open.update((on) => !on);
    this.tried.emit(null);
    if (this.open()) this.fill();
    else this.player.stop();
  }

  /** Takes up what is played now in the stretch. */
  private fill(): void {
    const { at, length } = this.stretch();
    const notes = this.playedNow().filter((n) => n.at >= at && n.at < at + length);
    this.division.set(this.coarsest(notes.map((n) => n.at)));
    const byPlace = new Map<number, number[]>();
    for (const n of notes) byPlace.set(n.at, [...(byPlace.get(n.at) ?? []), midiOf(n.pitch)]);
    this.written.set(byPlace);
  }

  private playedNow(): readonly { readonly at: number; readonly pitch: string }[] {
    const part = this.desk.currentPart();
    if (this.hand() === 'inner')
      return part?.under.flatMap((u) => (u.inner ? u.pitches.map((pitch) => ({ at: u.at, pitch })) : [])) ?? [];
    return (
      part?.chords.flatMap((c): readonly { readonly at: number; readonly pitch: string }[] => c.dressed?.notes ?? c.struck) ?? []
    );
  }

  protected reach(scope: Scope): void {
    this.scope.set(scope);
    this.fill();
  }

  /** The division on which all of some places stand; the finest where none has them all. */
  private coarsest(places: readonly number[]): Division {
    const count = countTicks(barAt(this.desk.arrangement()?.bars ?? [], this.from()).meter);
    const stands = (d: Division) => places.every((p) => (p - this.from()) % (count / Number(d)) === 0);
    return DIVISIONS.find(({ id }) => stands(id))?.id ?? '4';
  }

  protected divide(division: Division): void {
    this.division.set(division);
    // What falls between the counts that are left is not there any more.
    const kept = new Set(this.places().map((p) => p.at));
    this.written.update((written) => new Map([...written].filter(([at]) => kept.has(at))));
    if (!kept.has(this.here())) this.here.set(this.from());
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
    const { at, length } = this.stretch();
    const struck = this.places().filter((p) => p.midis !== null);
    const notes = struck.flatMap(({ at: from, midis }, i) =>
      this.spelled(midis ?? []).map((pitch) => ({ at: from, length: (struck[i + 1]?.at ?? at + length) - from, pitch })),
    );
    this.tried.emit(null);
    this.open.set(false);
    this.player.stop();
    const symbol = this.scope() === 'chord' ? (this.chord()?.symbol ?? null) : null;
    void this.desk.edit(this.writes({ at, length, symbol }, notes, false));
  }

  /** The same figure on the chord that comes next; what had to give way there is told. */
  protected give(to: ChordStretch): void {
    const arrangement = this.desk.arrangement();
    const own = this.chord();
    if (!own) return;
    const { at, length, symbol, dressed } = own;
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
    { at, length, symbol }: { readonly at: number; readonly length: number; readonly symbol: string | null },
    notes: readonly { at: number; length: number; pitch: string }[],
    given: boolean,
  ): Edit {
    const hand = this.hand();
    const keys: Edit = { code: 'edit.keys', hand, at, length, notes };
    const range = { start: at, end: at + length };
    const texture = notes.length > 0 ? WRITTEN : 'block';
    return {
      code: 'edit.several',
      as: { kind: 'own-keys', hand, symbol, given },
      edits: hand === 'left' ? [keys, { code: 'edit.setting', range, setting: 'texture', value: texture }] : [keys],
    };
  }
}
