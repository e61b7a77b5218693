import { capital, CAUTION, ENGLISH, HAND_LABELS, PROFILE_LABELS } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormField, form, validateStandardSchema } from '@angular/forms/signals';
import { RouterLink } from '@angular/router';
import * as z from 'zod';
import { grouped } from '@joined-hands/core/lists';
import {
  HAND_PROFILES,
  KEYBOARDS,
  KEYBOARD_SIZES,
  MEASURABLE,
  SPANS,
  handsOf,
  spanOf,
  type HandProfile,
  type Hands,
  type KeyboardSize,
} from '@joined-hands/core/song';
import { wholeNumber } from '../../platform/form-schema';
import { Player } from '../../platform/audio/player';
import { Ear } from '../../platform/input/ear';
import { KeyInput, soundsItself } from '../../platform/input/key-input';
import { openSong } from '../../platform/state/open-song';
import { DeskStore } from '../../platform/state/desk.store';
import { nameOfPlayer, PlayersStore } from '../../platform/state/players.store';
import { Check } from '../../ui/check';
import { EarButton } from '../../ui/ear/ear-button';
import { NumberField } from '../../ui/number-field';
import { keysInPlay } from '../../ui/keyboard/in-play';
import { Keyboard, type HandSpan, type PressedKey } from '../../ui/keyboard/keyboard';
import { MissingSong } from '../../ui/missing-song';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { Viewport } from '../../platform/viewport';
import { Words } from '../../platform/words';

type Hand = 'left' | 'right';

/** What is being measured: the easy span first, then the widest. */
interface Measuring {
  readonly hand: Hand;
  readonly step: 'comfortable' | 'limit';
  readonly first: number | null;
  readonly comfortable: number | null;
}

/** Rules of findings that a change of hands or keyboard brings or takes away, with what was done in each case. */
const HAND_RULES: Readonly<Record<string, string>> = {
  spread: $localize`played one note after another`,
  thinned: $localize`with fewer notes`,
  stretch: $localize`wider than your comfortable span`,
  reach: $localize`out of reach`,
  keyboard: $localize`off the keyboard`,
  'tune-moved': $localize`melody moved`,
  'tune-folded': $localize`melody brought into range`,
};

const KEYBOARD_WORDS: Readonly<Record<KeyboardSize, string>> = { 49: 'C2 to C6', 61: 'C2 to C7', 76: 'E1 to G7', 88: 'A0 to C8' };

const HALF_STEPS = wholeNumber(
  MEASURABLE.least,
  MEASURABLE.most,
  $localize`A span is ${MEASURABLE.least} to ${MEASURABLE.most} half steps.`,
);
const SPAN = z.object({ comfortable: HALF_STEPS, limit: HALF_STEPS });

/** Who plays, on which keyboard: profile or measured spans, the first-year switch, and what no longer fits. */
@Component({
  selector: 'jh-hands',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Check, EarButton, FormField, Keyboard, MissingSong, NumberField, Pressed, RouterLink, Signs],
  templateUrl: './hands.html',
  styleUrl: './hands.less',
})
export class HandsScreen {
  protected readonly spoken = inject(Words);
  protected readonly caution = CAUTION;
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  private readonly players = inject(PlayersStore);
  /** Whether these hands are of this song alone, and whose the usual ones are. */
  protected readonly onlyHere = computed(() => this.players.current().songs[this.id()] !== undefined);
  protected readonly player = computed(() => (this.players.several() ? nameOfPlayer(this.players.current()) : null));
  protected readonly keys = inject(KeyInput);
  protected readonly sound = inject(Player);
  protected readonly viewport = inject(Viewport);
  protected readonly profiles = HAND_PROFILES.map((id) => ({ id, name: PROFILE_LABELS[id].name, ...SPANS[id] }));
  protected readonly sizes = KEYBOARD_SIZES.map((id) => ({ id, text: KEYBOARD_WORDS[id] }));
  protected readonly handLabels = HAND_LABELS;
  protected readonly profileLabels = PROFILE_LABELS;
  protected readonly both: readonly Hand[] = ['left', 'right'];
  /** The two spans of a hand. */
  protected readonly measures = [
    { id: 'comfortable', words: $localize`comfortable` },
    { id: 'limit', words: $localize`at most` },
  ] as const;
  protected readonly hands = computed((): Hands => this.desk.document()?.hands ?? handsOf());
  protected readonly measuring = signal<Measuring | null>(null);
  protected readonly fault = signal<string | null>(null);

  protected readonly asked = computed(() => {
    const now = this.measuring();
    if (!now) return null;
    const hand = capital(HAND_LABELS[now.hand]);
    const which = now.first === null ? $localize`lowest` : $localize`highest`;
    return now.step === 'comfortable'
      ? $localize`${hand}\: press the ${which} key you can reach comfortably.`
      : $localize`${hand}\: press the ${which} key you can just reach without strain, or keep the comfortable span as the limit.`;
  });

  protected readonly pressed = computed((): PressedKey[] => {
    const now = this.measuring();
    return now?.first ? [{ midi: now.first, hand: now.hand, text: '' }] : [];
  });

  /** The comfortable span of each hand, laid on the keyboard around middle C. */
  protected readonly spans = computed((): HandSpan[] => {
    const { low, high } = KEYBOARDS[this.hands().keys];
    return this.both.map((hand): HandSpan => {
      const { comfortable } = spanOf(this.hands(), hand);
      const from = hand === 'left' ? Math.max(low, 55 - comfortable) : 64;
      // On a phone there is room for the name of the hand; how far it reaches stands above.
      const text = this.viewport.isUpright() ? HAND_LABELS[hand] : `${HAND_LABELS[hand]}: ${spanWords(comfortable)}`;
      return { hand, from, to: Math.min(high, from + comfortable), text };
    });
  });

  /** The keys that both spans lie on, for a screen without room for all. */
  protected readonly around = computed(() => keysInPlay(this.spans().flatMap(({ from, to }) => [from, to])));

  /** What the hands and the keyboard changed in the song, by what was done about it. */
  protected readonly misfits = computed(() => {
    const findings = (this.desk.arrangement()?.findings ?? []).filter((f) => f.rule in HAND_RULES);
    return [...grouped(findings, (f) => f.rule)].map(([rule, found]) => ({
      rule,
      words: `${found.length} ${HAND_RULES[rule]}`,
      found,
    }));
  });

  constructor() {
    openSong(this.id);
    // Any key may be the one: nothing is due.
    inject(Ear).expect([]);
    this.keys.pressed.pipe(takeUntilDestroyed()).subscribe((press) => {
      if (!soundsItself(press)) void this.sound.strike([press.midi]);
      this.measure(press.midi);
    });
  }

  /** The spans as the document has them; another change of the hands leaves alone what is being typed. */
  private readonly written = computed(() => ({ left: this.spanInFields('left'), right: this.spanInFields('right') }), {
    equal: (a, b) => JSON.stringify(a) === JSON.stringify(b),
  });
  /** The spans as they stand in their fields. */
  private readonly typed = linkedSignal(() => this.written());
  protected readonly fields = form(this.typed, (path) => validateStandardSchema(path, z.object({ left: SPAN, right: SPAN })));

  private spanInFields(hand: Hand): { comfortable: number | null; limit: number | null } {
    const { comfortable, limit } = this.spanIn(hand);
    return { comfortable, limit };
  }

  protected spanIn(hand: Hand) {
    return this.hands()[hand] ?? SPANS[this.hands().profile];
  }

  protected words(semitones: number): string {
    return spanWords(semitones);
  }

  protected chooseProfile(profile: HandProfile): void {
    this.change({ profile, left: null, right: null });
  }

  protected chooseKeys(keys: KeyboardSize): void {
    this.change({ keys });
  }

  protected settle(which: 'everywhere' | 'usual'): void {
    this.players.settleHands(this.id(), which);
  }

  protected setFirstYear(firstYear: boolean): void {
    this.change({ firstYear });
  }

  protected start(hand: Hand): void {
    this.fault.set(null);
    this.measuring.set({ hand, step: 'comfortable', first: null, comfortable: null });
  }

  /** Keeps the comfortable span as the limit too. */
  protected finish(): void {
    const now = this.measuring();
    if (now?.comfortable) this.change({ [now.hand]: { comfortable: now.comfortable, limit: now.comfortable } });
    this.measuring.set(null);
  }

  protected forget(hand: Hand): void {
    this.change({ [hand]: null });
  }

  /** Sets one of the two figures by hand; the other follows where it must. */
  protected setSpan(hand: Hand, which: 'comfortable' | 'limit', value: number | null): void {
    if (value === null || !HALF_STEPS.safeParse(value).success) return;
    const span = { ...this.spanIn(hand), [which]: value };
    const { comfortable, limit } = span;
    this.change({
      [hand]:
        which === 'comfortable'
          ? { comfortable, limit: Math.max(limit, value) }
          : { comfortable: Math.min(comfortable, value), limit },
    });
  }

  private measure(midi: number): void {
    const now = this.measuring();
    if (!now) return;
    this.fault.set(null);
    if (now.first === null) return this.measuring.set({ ...now, first: midi });
    const span = Math.abs(midi - now.first);
    if (span < MEASURABLE.least || span > MEASURABLE.most) {
      this.fault.set(
        $localize`That is ${spanWords(span)}. Press the lowest and the highest key of one hand, between a third and two octaves apart.`,
      );
      return this.measuring.set({ ...now, first: null });
    }
    if (now.step === 'comfortable') return this.measuring.set({ ...now, step: 'limit', first: null, comfortable: span });
    const comfortable = Math.min(now.comfortable ?? span, span);
    this.change({ [now.hand]: { comfortable, limit: span } });
    this.measuring.set(null);
  }

  private change(change: Partial<Hands>): void {
    void this.desk.edit({ code: 'edit.hands', change });
  }
}

/** A span as pianists name it: "an octave, 12 half steps". */
const spanWords = (semitones: number): string => ENGLISH.fact({ code: 'screen.span', halfSteps: semitones });
