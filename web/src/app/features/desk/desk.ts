import { alsoIn } from '@joined-hands/core/words';
import { LiveAnnouncer } from '@angular/cdk/a11y';
import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterRenderEffect,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
  type OnDestroy,
} from '@angular/core';
import { handsOf, rangeOf } from '@joined-hands/core/song';
import { scheduleSounds } from '../../platform/audio/schedule';
import { download, fileName } from '../../platform/download';
import { pictureOf } from '../../platform/picture';
import { Player } from '../../platform/audio/player';
import { TourStopMark } from '../../platform/state/tour-stops';
import { KeyInput } from '../../platform/input/key-input';
import { MissingSong } from '../../ui/missing-song';
import { Actions, type Action } from '../../platform/state/actions';
import { openSong } from '../../platform/state/open-song';
import { DeskStore, type HandView } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Choice } from '../../ui/choice';
import { Drawer } from '../../ui/drawer';
import { JoinStrip } from '../../ui/join-strip/join-strip';
import { Keyboard } from '../../ui/keyboard/keyboard';
import { Signs } from '../../ui/signs';
import { Toasts } from '../../platform/toasts';
import { HandBar } from './hand-bar';
import { chosenInShort, keysAtWork, type Trial } from './keys-at-work';
import { Joins } from './joins';
import { Ladder } from './ladder';
import { Progression } from './progression';
import { Reasons } from './reasons';
import { Roadmap } from './roadmap';
import { spokenJoin, spokenPart } from './spoken';
import { keywordsOf, texturesOf } from './textures';
import { Transport } from './transport';
import { Viewport } from '../../platform/viewport';
import { Words } from '../../platform/words';
import { LEARN_WISHES } from '../../ui/wish-words';
import { WhoPlays } from './who-plays';
import { cutBetween } from './cuts';
import { WriteTune } from './write-tune';

const VIEWS: readonly { readonly id: HandView; readonly text: string; readonly keywords: string }[] = [
  { id: 'right', text: $localize`Right hand`, keywords: $localize`right hand only, melody alone` },
  { id: 'left', text: $localize`Left hand`, keywords: $localize`left hand only, chords alone` },
  { id: 'joined', text: $localize`Joined`, keywords: $localize`both hands, hands together` },
  { id: 'fills', text: $localize`With fills`, keywords: $localize`accompaniment, textures, dressed` },
];

const TELLINGS = [
  { id: 'strip', text: $localize`Strip` },
  { id: 'words', text: $localize`In words` },
] as const;

const WIDTHS = [
  { id: 'part', text: $localize`This part` },
  { id: 'song', text: $localize`Whole song` },
] as const;

/** The Desk: one part at a time, with the ladder, the strip, the reasons and the keyboard. */
@Component({
  selector: 'jh-desk',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    TourStopMark,
    MissingSong,
    Choice,
    HandBar,
    Joins,
    JoinStrip,
    Keyboard,
    Ladder,
    Drawer,
    Progression,
    Reasons,
    Roadmap,
    Signs,
    Transport,
    WhoPlays,
    WriteTune,
  ],
  templateUrl: './desk.html',
  styleUrl: './desk.less',
})
export class Desk implements OnDestroy {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  private readonly words = inject(Words);
  protected readonly player = inject(Player);
  protected readonly settings = inject(SettingsStore);
  protected readonly keys = inject(KeyInput);
  protected readonly viewport = inject(Viewport);
  private readonly toasts = inject(Toasts);
  private readonly application = inject(ApplicationRef);
  protected readonly views = VIEWS;
  protected readonly widths = WIDTHS;
  protected readonly learnings = LEARN_WISHES;
  protected readonly tellings = TELLINGS;
  protected readonly part = this.desk.currentPart;
  protected readonly hands = computed(() => this.desk.document()?.hands ?? handsOf());
  protected readonly scope = signal<'part' | 'to-here'>('part');
  /** The whole song's left hand in place of the part at work; only where the left hand is looked at by itself. */
  protected readonly wide = signal(false);
  protected readonly progression = computed(() => this.wide() && this.desk.view() === 'left');
  /** The joins as sentences in place of the strip; only where the hands are joined. */
  protected readonly inWords = signal(false);
  protected readonly showSentences = computed(() => this.inWords() && this.desk.view() === 'joined');
  /** Keys of an alternative that is tried by ear. */
  protected readonly trial = linkedSignal<Trial>(() => ({
    at: this.desk.selection()?.at,
    pitches: null,
  }));

  protected readonly tempo = computed(() =>
    Math.round(((this.desk.arrangement()?.song.tempo ?? 100) * this.settings.tempoPercent()) / 100),
  );

  /** The words of the part, or what it repeats: a line under its number. */
  protected readonly subtitle = computed(() => {
    const part = this.part();
    if (!part) return '';
    const words = [...part.melody.flatMap((n) => n.lyric ?? []), ...part.words]
      .map((l) => (l.joins ? l.text : `${l.text} `))
      .join('')
      .trim();
    return part.name ?? words;
  });

  /** What the keyboard shows: keys under fingers, where the hands lie, where they meet. */
  protected readonly board = keysAtWork(this.trial);
  /** What is chosen on the strip, in a line: on a phone the reasons open from it. */
  protected readonly chosen = computed(() => chosenInShort(this.desk, this.words.say()));
  /** The reasons as a drawer, where there is no room for them beside the strip. */
  protected readonly reasonsOpen = signal(false);

  /** How many times its own size the strip may be drawn on a large screen. */
  protected readonly closest = 1.4;
  private readonly aloud = inject(LiveAnnouncer);
  private readonly room = viewChild<ElementRef<HTMLElement>>('room');
  /** Pixels between the head and the transport, for the strip to fill. */
  protected readonly stripRoom = signal(0);
  /** What the repeats of the part could take over of the last change. */
  protected readonly linkedSays = computed(() => {
    const linked = this.desk.linked();
    return linked ? alsoIn(linked.parts, linked.differing, this.words.say()) : '';
  });
  /** False for a song of words and chords alone. */
  protected readonly hasTune = computed(() => (this.desk.arrangement()?.song.melody.length ?? 0) > 0);
  /** True where the part has words to learn by. */
  protected readonly hasLyrics = computed(() => this.part()?.melody.some((n) => n.lyric !== null) ?? false);

  constructor() {
    afterRenderEffect((onCleanup) => {
      const element = this.room()?.nativeElement;
      if (!element) return;
      const observer = new ResizeObserver(() => this.stripRoom.set(element.clientHeight - 20));
      observer.observe(element);
      onCleanup(() => observer.disconnect());
    });
    openSong(this.id);
    inject(Actions).register(() => this.actions());
    // The part that sounds is the part that is shown.
    effect(() => {
      const at = this.player.position();
      const parts = this.desk.arrangement()?.parts;
      if (at === null || !parts || this.scope() === 'part') return;
      const sounding = parts.find((p) => at >= p.start && at < p.end);
      untracked(() => {
        if (sounding && sounding.number !== this.desk.currentPart()?.number) this.desk.choosePart(sounding.number);
      });
    });
  }

  ngOnDestroy(): void {
    this.player.stop();
  }

  protected toggle(): void {
    if (this.player.state() !== 'silent' && !this.player.trying()) return this.player.stop();
    const arrangement = this.desk.arrangement();
    const part = this.part();
    if (!arrangement || !part) return;
    const view = this.desk.view();
    const plan = scheduleSounds(arrangement, part, {
      hands: view === 'right' || view === 'left' ? view : 'both',
      plain: view !== 'fills',
      scope: this.scope(),
      tempo: this.tempo(),
      countIn: this.settings.countIn(),
      click: this.settings.click(),
    });
    void this.player.play(plan);
  }

  /** The strip of the part as it is seen. */
  protected async savePicture(): Promise<void> {
    // A part that was only just chosen is drawn first.
    await this.application.whenStable();
    const [strip, part, document] = [this.room()?.nativeElement, this.part(), this.desk.document()];
    if (!strip || !part || !document) return;
    try {
      const ground = getComputedStyle(strip).getPropertyValue('--sheet');
      download(`${fileName(document.song.title)}-part-${part.number}.png`, await pictureOf(strip, ground), 'image/png');
    } catch {
      this.toasts.say($localize`The picture could not be made. The sheet can be printed or saved instead.`);
    }
  }

  /** A key of the screen's keyboard: it sounds, and whoever listens to keys hears of it. */
  protected pressKey(midi: number): void {
    void this.player.strike([midi]);
    this.keys.press(midi);
  }

  protected chooseGrip({ part, at }: { part: number; at: number }): void {
    this.desk.choosePart(part);
    this.desk.select({ kind: 'chord', at });
  }

  protected moveCut(move: { end: 'start' | 'end'; to: number }): void {
    const part = this.part();
    const parts = this.desk.arrangement()?.parts;
    if (!part || !parts) return;
    const index = move.end === 'start' ? part.number - 1 : part.number;
    void this.desk.edit(cutBetween(parts, index, move.to));
  }

  /** What can be done at the desk, beside what its panels offer. */
  private actions(): Action[] {
    const part = this.part()?.number ?? 1;
    return [
      { name: this.player.state() === 'silent' ? $localize`Start` : $localize`Stop`, keys: [' '], run: () => this.toggle() },
      { name: $localize`Step to the next join`, keys: ['ArrowRight'], run: () => this.stepJoin(1) },
      { name: $localize`Step to the previous join`, keys: ['ArrowLeft'], run: () => this.stepJoin(-1) },
      { name: $localize`Go to the next part`, keys: ['ArrowDown'], run: () => this.stepPart(part + 1) },
      { name: $localize`Go to the previous part`, keys: ['ArrowUp'], run: () => this.stepPart(part - 1) },
      ...VIEWS.map(({ id, text, keywords }, i) => ({
        name: text,
        keywords,
        keys: [`${i + 1}`],
        run: () => this.showView(id, text),
      })),
      {
        name: $localize`Save a picture of this part`,
        keywords: $localize`PNG, image, export`,
        run: () => void this.savePicture(),
      },
      ...this.dressings(),
    ];
  }

  /** The textures, from the views that do not show them: choosing one shows what it makes of the part. */
  private dressings(): Action[] {
    const [document, arrangement, part] = [this.desk.document(), this.desk.arrangement(), this.part()];
    if (!document || !arrangement || !part || this.desk.view() === 'fills') return [];
    return texturesOf(document, arrangement, part).map((texture) => ({
      name: $localize`Texture: ${texture.title}`,
      keywords: keywordsOf(texture),
      run: () => {
        this.desk.setView('fills');
        const range = rangeOf(part);
        const { id, title } = texture;
        void this.desk.edit({ code: 'edit.setting', range, setting: 'texture', value: id, title });
      },
    }));
  }

  private stepJoin(by: 1 | -1): void {
    const part = this.part();
    if (!part) return;
    const at = this.desk.selection()?.at ?? part.start;
    const next = by > 0 ? part.chords.find((c) => c.at > at) : [...part.chords].reverse().find((c) => c.at < at);
    if (!next) return;
    this.desk.select({ kind: 'chord', at: next.at });
    this.say(spokenJoin(part, this.desk.arrangement()?.bars ?? [], next.at, this.words.say()));
  }

  private stepPart(to: number): void {
    this.desk.choosePart(to);
    const part = this.part();
    if (part) this.say(spokenPart(part, this.words.say()));
  }

  private showView(view: HandView, text: string): void {
    this.desk.setView(view);
    this.say(text);
  }

  /** Reads aloud what a key has done, to who does not see it. */
  private say(words: string): void {
    void this.aloud.announce(words);
  }
}
