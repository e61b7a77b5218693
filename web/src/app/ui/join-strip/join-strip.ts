import { FILL_LABELS, HAND_LABELS } from '@joined-hands/core/words';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  type OnDestroy,
} from '@angular/core';
import type { Part } from '@joined-hands/core/arrange';
import { placeOf, type Bar } from '@joined-hands/core/time';
import type { HandView, Selection } from '../../platform/state/desk.store';
import { SvgSigns } from '../signs';
import { positionLines } from './sizes';
import { fitStrip } from './fit';
import type { PlaceMark, RoomMark, Stack, Stone, StripLine } from './strip';
import { Words } from '../../platform/words';

/** What became of a note in a pass; `unsure` for one that was not heard clearly. */
export type Verdict = 'wrong' | 'missed' | 'early' | 'late' | 'unsure';

/** A verdict at a place of the song, for one hand. */
export interface StripMark {
  readonly hand: 'left' | 'right';
  readonly place: number;
  readonly verdict: Verdict;
}

const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  wrong: $localize`a wrong key`,
  missed: $localize`a key missing`,
  early: 'early',
  late: 'late',
  unsure: $localize`not heard clearly`,
};

/**
 * The join strip: a ruler of counts, the right hand as round stones above it, the left hand as stacked square blocks
 * below, and a clasp wherever both strike together.
 */
@Component({
  selector: 'jh-join-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [SvgSigns],
  templateUrl: './join-strip.html',
  styleUrl: './join-strip.less',
  host: { '[attr.data-view]': 'view()', '[class.sung]': 'part().sung.length > 0' },
})
export class JoinStrip implements OnDestroy {
  readonly part = input.required<Part>();
  readonly bars = input.required<readonly Bar[]>();
  readonly view = input<HandView>('joined');
  /** The share of a quarter that the first of its two eighths takes; more than a half where they swing. */
  readonly swing = input(0.5);
  /** What runs under the stones: the sung words, or the counts. */
  readonly learnBy = input<'words' | 'counts'>('words');
  readonly selection = input<Selection | null>(null);
  /** Keys that meet the other hand, by the place of the chord. */
  readonly clashes = input<ReadonlyMap<number, readonly string[]>>(new Map<number, readonly string[]>());
  /** Position that sounds now, in ticks, or null. */
  readonly playhead = input<number | null>(null);
  /** How a pass went, at the places where it was not right. */
  readonly marks = input<readonly StripMark[]>([]);
  /** Pixels that the strip may fill. */
  readonly height = input(0);
  /** How many times its own size it may be drawn, where there is room for it. */
  readonly most = input(1);
  /** How many times its own size it may be drawn where not even one line has the height. */
  readonly least = input(1);
  readonly canCutStart = input(false);
  readonly canCutEnd = input(false);
  readonly selected = output<Selection>();
  /** A boundary was dragged: which end of the part, and the place in ticks. */
  readonly cutMoved = output<{ end: 'start' | 'end'; to: number }>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly words = inject(Words);
  private readonly width = signal(740);
  private observer: ResizeObserver | null = null;
  protected readonly drag = signal<{ end: 'start' | 'end'; to: number } | null>(null);

  private readonly laid = computed(() =>
    fitStrip(
      this.part(),
      this.bars(),
      { width: this.width(), height: this.height() },
      { most: this.most(), least: this.least(), dressed: this.view() === 'fills', swing: this.swing() },
    ),
  );
  protected readonly lines = computed(() => this.laid().lines);
  protected readonly zoom = computed(() => this.laid().zoom);
  protected readonly lastLine = computed(() => this.lines().length - 1);
  /** The line that sounds; null in silence. */
  private readonly soundingLine = computed(() => {
    const at = this.playhead();
    return at === null ? null : this.lines().findIndex((line) => at >= line.start && at < line.end);
  });

  constructor() {
    // What sounds is in sight, where the strip has more lines than there is room for.
    effect(() => {
      const line = this.soundingLine();
      if (line !== null) this.host.nativeElement.children[line]?.scrollIntoView({ block: 'nearest' });
    });
    afterNextRender(() => {
      this.observer = new ResizeObserver(([entry]) => this.width.set(Math.max(320, entry.contentRect.width)));
      this.observer.observe(this.host.nativeElement);
    });
  }

  ngOnDestroy(): void {
    this.observer?.disconnect();
  }

  protected isChord(at: number): boolean {
    const s = this.selection();
    return s?.kind === 'chord' && s.at === at;
  }

  protected isNote(at: number): boolean {
    const s = this.selection();
    return s?.kind === 'note' && s.at === at;
  }

  protected isRoom(at: number): boolean {
    const s = this.selection();
    return s?.kind === 'room' && s.at === at;
  }

  protected graceNames({ graces }: Pick<Stone, 'graces'>): string {
    return graces.map(this.words.say().note).join(' ');
  }

  protected roomLabel({ counts, chosen }: RoomMark): string {
    const what = chosen === null ? '' : chosen === 'none' ? $localize`, left empty` : `, ${FILL_LABELS[chosen]}`;
    return this.words.say().fact({ code: 'screen.room', counts }) + what;
  }

  protected marksIn(line: StripLine): readonly { x: number; y: number; verdict: Verdict; text: string }[] {
    return this.marks()
      .filter(({ place }) => place >= line.start && place < line.end)
      .map(({ hand, place, verdict }) => ({
        x: line.x(place),
        y: line.rulerY + (hand === 'right' ? -30 : 30),
        verdict,
        text: `${HAND_LABELS[hand]}: ${VERDICT_WORDS[verdict]}`,
      }));
  }

  protected headX(line: StripLine): number | null {
    const at = this.playhead();
    return at === null || at < line.start || at >= line.end ? null : line.x(at);
  }

  /** What stands under the name of a chord beside its stack. */
  protected besideName({ chord, struck, stands }: Stack): string[] {
    return [...(stands === 'whole' ? positionLines(this.words.say().position(chord.position)) : []), struck].filter(Boolean);
  }

  /** Fingers of what is struck together, from the lowest key up. */
  protected fingersOf({ blocks }: Pick<Stack, 'blocks'>): string {
    return [...blocks]
      .reverse()
      .map((b) => b.finger)
      .join('-');
  }

  protected stackLabel(stack: Stack): string {
    const { chord } = stack;
    const say = this.words.say();
    const keys = chord.pitches.map(say.pitch).join(', ');
    return `${say.chord(chord.symbol)}, ${say.position(chord.position)}, ${keys}${chord.pinned ? $localize`, your choice` : ''}${this.clashes().has(chord.at) ? $localize`, the hands meet` : ''}`;
  }

  protected stoneLabel({ note, word, ahead, held }: Stone): string {
    const say = this.words.say();
    const beside = note.with ? $localize` together with ${say.list(note.with.map(say.pitch))}` : '';
    const finger = note.finger ? `, finger ${note.finger}` : '';
    const stopped = held ? $localize`, with a fermata` : '';
    return `${say.pitch(note.pitch)}${beside}${word ? `, on ${word}` : ''}${finger}${stopped}${ahead ? $localize`, ahead of the beat` : ''}`;
  }

  protected placeNames({ names }: PlaceMark): string {
    return names.map(this.words.say().note).join(' to ');
  }

  protected placeOf(at: number): string {
    return this.words.say().place(placeOf(this.bars(), at));
  }

  /** Where a note stands, and which chord the other hand strikes with it, so that a part can be followed by ear from note to note. */
  protected stonePlace({ stacks }: StripLine, { note }: Stone): string {
    const chord = stacks.find((s) => s.chord.at === note.at)?.chord;
    return this.placeOf(note.at) + (chord ? `, with ${this.words.say().chord(chord.symbol)}` : '');
  }

  protected press(event: KeyboardEvent, selection: Selection): void {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    this.selected.emit(selection);
  }

  /** The x of the handle at an end of a line, following the pointer while it is dragged. */
  protected handleX(line: StripLine, end: 'start' | 'end'): number {
    const drag = this.drag();
    if (drag?.end === end) return line.x(drag.to) - 20;
    return end === 'start' ? 8 : line.width - 6;
  }

  protected startDrag(event: PointerEvent, line: StripLine, end: 'start' | 'end'): void {
    const handle = event.currentTarget as SVGGraphicsElement;
    const svg = handle.ownerSVGElement as SVGSVGElement;
    handle.setPointerCapture(event.pointerId);
    event.preventDefault();
    const move = (e: PointerEvent) => {
      const box = svg.getBoundingClientRect();
      const x = ((e.clientX - box.left) / box.width) * line.width;
      this.drag.set({ end, to: this.nearestCut(line, line.at(x)) });
    };
    const heard = new AbortController();
    const drop = () => {
      heard.abort();
      const drag = this.drag();
      this.drag.set(null);
      return drag;
    };
    const commit = () => {
      const drag = drop();
      const edge = end === 'start' ? this.part().start : this.part().end;
      if (drag && drag.to !== edge) this.cutMoved.emit(drag);
    };
    // Taken away by the browser, such as for scrolling, the pointer has not let go: nothing is moved.
    handle.addEventListener('pointermove', move, { signal: heard.signal });
    handle.addEventListener('pointerup', commit, { signal: heard.signal });
    handle.addEventListener('pointercancel', drop, { signal: heard.signal });
  }

  /** Parts begin where a note begins, or at their present edges. */
  private nearestCut(line: StripLine, at: number): number {
    const { start, end, melody } = this.part();
    const places = [start, ...melody.map((n) => n.at), end].filter((p) => p >= line.start && p <= line.end);
    return places.reduce((best, p) => (Math.abs(p - at) < Math.abs(best - at) ? p : best), places[0]);
  }
}
