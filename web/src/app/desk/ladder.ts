import { ChangeDetectionStrategy, Component, ElementRef, computed, inject, signal, viewChild } from '@angular/core';
import {
  barAt,
  clearParts,
  mergePart,
  moveCut,
  nameSection,
  partTitle,
  renamePart,
  repeatWords,
  setPartSize,
  type Choices,
  type Part,
} from '@joined-hands/core';
import { Actions } from '../state/actions';
import { DeskStore } from '../state/desk.store';
import { More, type Deed } from '../widgets/more';
import { Pressed } from '../widgets/pressed';
import { Signs } from '../widgets/signs';

/** The numbered parts of the song, with what can be done to each. */
@Component({
  selector: 'jh-ladder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [More, Pressed, Signs],
  templateUrl: './ladder.html',
  styleUrl: './ladder.less',
})
export class Ladder {
  protected readonly desk = inject(DeskStore);
  protected readonly parts = computed(() => this.desk.arrangement()?.parts ?? []);
  protected readonly hardest = computed(() => this.desk.arrangement()?.hardest ?? null);
  protected readonly renaming = signal<number | null>(null);
  /** What is being named: the part, or the section that begins with it. */
  protected readonly naming = signal<'part' | 'section'>('part');
  protected readonly sizes: readonly Choices['partSize'][] = ['smaller', 'usual', 'larger'];
  protected readonly ownCuts = computed(() => (this.desk.document()?.choices.parts.length ?? 0) > 0);
  private readonly nameField = viewChild<ElementRef<HTMLInputElement>>('nameField');

  constructor() {
    inject(Actions).offer(() => {
      const part = this.desk.currentPart();
      return part
        ? [...this.doable(part), ...this.sizes.map((s) => ({ name: `Cut into ${s} parts`, run: () => this.resize(s) }))]
        : [];
    });
  }

  /** What can be done to a part, as its menu shows it. */
  protected doable(part: Part): Deed[] {
    const own: Deed[] = [
      { name: 'Name this part', run: () => this.startRename(part, 'part') },
      { name: 'Name a section from here', run: () => this.startRename(part, 'section') },
    ];
    if (part.number === 1) return own;
    return [
      ...own,
      { name: `Join to part ${part.number - 1}`, run: () => this.joinToBefore(part) },
      { name: 'Begin one note earlier', run: () => this.shiftStart(part, 'earlier') },
      { name: 'Begin one note later', run: () => this.shiftStart(part, 'later') },
    ];
  }

  protected title(part: Part): string {
    return partTitle(part);
  }

  protected about(part: Part): string {
    if (part.repeats) return repeatWords(part.repeats, this.placeOf(part.repeats.differsFrom));
    const chords = new Set(part.chords.map((c) => c.symbol)).size;
    const notes = part.melody.length;
    return `${notes} ${notes === 1 ? 'note' : 'notes'}, ${chords} ${chords === 1 ? 'chord' : 'chords'}`;
  }

  /** The bar of a place, as a repeat names it. */
  private placeOf(at: number | null): string {
    const bars = this.desk.arrangement()?.bars;
    return at === null || !bars ? '' : `bar ${barAt(bars, at).number}`;
  }

  protected sectionAt(part: Part): string | null {
    return this.desk.arrangement()?.sections.find((s) => s.from === part.number)?.name ?? null;
  }

  private startRename(part: Part, naming: 'part' | 'section'): void {
    this.desk.choosePart(part.number);
    this.naming.set(naming);
    this.renaming.set(part.number);
    setTimeout(() => this.nameField()?.nativeElement.select());
  }

  protected finishRename(part: Part, name: string): void {
    if (this.renaming() !== part.number) return;
    this.renaming.set(null);
    if (this.naming() === 'section') void this.desk.edit('name a section', (d) => nameSection(d, part.start, name));
    else void this.desk.edit(`name part ${part.number}`, (d) => renamePart(d, part.start, name));
  }

  private joinToBefore(part: Part): void {
    const parts = this.parts();
    void this.desk
      .edit('join two parts', (d) => mergePart(d, parts, part.number - 1))
      .then(() => {
        this.desk.choosePart(part.number - 1);
      });
  }

  /** Moves the beginning of a part by one note: earlier takes one from the part before, later gives one to it. */
  private shiftStart(part: Part, by: 'earlier' | 'later'): void {
    const parts = this.parts();
    const before = parts[part.number - 2];
    const to = by === 'earlier' ? before?.melody.at(-1)?.at : part.melody.find((n) => n.at > part.start)?.at;
    if (to === undefined) return;
    void this.desk.edit('move a cut', (d) => moveCut(d, parts, part.number - 1, to));
  }

  protected resize(size: Choices['partSize']): void {
    void this.desk.edit(`${size} parts`, (d) => setPartSize(d, size));
  }

  protected recut(): void {
    void this.desk.edit('cut by the music', clearParts);
  }
}
