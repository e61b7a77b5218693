import type { Part } from '@joined-hands/core/arrange';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  OnDestroy,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { FormField, form, validateStandardSchema } from '@angular/forms/signals';
import { RouterLink } from '@angular/router';
import {
  columnKeys,
  GRID_ROWS,
  patternFor,
  readTextures,
  regrid,
  rowsOf,
  TEXTURES,
  toggleRow,
  withColumn,
  writeTextures,
  type GridRow,
} from '@joined-hands/core/fills';
import { midiOf } from '@joined-hands/core/pitch';
import { barsOf, type Texture, applyEdit, type Edit, rangeOf } from '@joined-hands/core/song';
import { barAt, countAt, countTicks, meterName, type Meter } from '@joined-hands/core/time';
import { asArranged, scheduleSounds } from '../../platform/audio/schedule';
import { Player } from '../../platform/audio/player';
import { MissingSong } from '../../ui/missing-song';
import { openSong } from '../../platform/state/open-song';
import { DeskStore } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Choice } from '../../ui/choice';
import { download } from '../../platform/download';
import { neededLine } from '../../platform/form-schema';
import { Energy } from '../../ui/energy';
import { Toasts } from '../../platform/toasts';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { ROW_WORDS } from './rows';
import { Words } from '../../platform/words';
import { TextField } from '../../ui/text-field';
import * as z from 'zod';

/** Columns for each count that can be written in. */
const DIVISIONS = ['1', '2', '3', '4'] as const;
type Division = (typeof DIVISIONS)[number];
const LENGTHS = ['1', '2', '4'] as const;
type Length = (typeof LENGTHS)[number];

/** A figure as it is written: its name, its energy and its pattern in the song's meter. */
interface Draft {
  readonly id: string;
  readonly title: string;
  readonly energy: number;
  readonly steps: string;
}

const PATTERN = z.object({ title: neededLine(60, $localize`A pattern needs a name.`) });

/** Rows and columns that an arrow key goes. */
const STEPS: Readonly<Partial<Record<string, readonly [number, number]>>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Writing accompaniment figures on a count grid: degrees of the chord from high to low, counts from left to right. */
@Component({
  selector: 'jh-figures',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Energy, FormField, MissingSong, RouterLink, TextField],
  templateUrl: './patterns.html',
  styleUrl: './patterns.less',
})
export class PatternsScreen implements OnDestroy {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  private readonly words = inject(Words);
  protected readonly player = inject(Player);
  private readonly settings = inject(SettingsStore);
  private readonly toasts = inject(Toasts);
  private readonly workers = inject(Workers);
  protected readonly rows = GRID_ROWS.map((id) => ({ id, ...ROW_WORDS[id] }));
  protected readonly divisions = DIVISIONS.map((id) => ({
    id,
    text: { '1': $localize`counts`, '2': $localize`halves`, '3': $localize`thirds`, '4': $localize`quarters` }[id],
  }));
  protected readonly lengths = LENGTHS.map((id) => ({ id, text: id === '1' ? $localize`one bar` : `${id} bars` }));
  protected readonly fault = signal<string | null>(null);

  protected readonly meter = computed((): Meter => {
    const bars = this.desk.arrangement()?.bars;
    const part = this.desk.currentPart();
    return bars && part ? barAt(bars, part.end - 1).meter : { beats: 4, unit: 4 };
  });
  protected readonly meterText = computed(() => meterName(this.meter()));
  protected readonly own = computed(() => this.desk.document()?.choices.textures ?? []);
  protected readonly shipped = computed(() => TEXTURES.filter((t) => patternFor(t, this.meter())));

  protected readonly draft = linkedSignal<string | undefined, Draft>({
    source: () => this.desk.id() ?? undefined,
    computation: () => this.empty(),
  });
  protected readonly fields = form(this.draft, (path) => validateStandardSchema(path, PATTERN));
  protected readonly bars = computed(() => barsOf(this.draft().steps));
  protected readonly columns = computed(() => this.bars()[0].length);
  protected readonly division = computed(() => `${Math.round(this.columns() / this.meter().beats)}` as Division);
  protected readonly length = computed(() => `${this.bars().length}` as Length);
  protected readonly saved = computed(() => {
    const draft = this.draft();
    const kept = this.own().find((t) => t.id === draft.id);
    return kept !== undefined && JSON.stringify(this.textureOf(draft)) === JSON.stringify(kept);
  });

  /** A cell of the grid by its row, its place among the counts, and its bar. */
  protected cellLabel(row: string, count: number, bar: number): string {
    const on = this.counts()[count].text;
    return this.bars().length > 1 ? $localize`${row} on ${on}, bar ${bar + 1}` : $localize`${row} on ${on}`;
  }

  /** Counts over the columns of one bar: "1", "&", "2" … */
  protected readonly counts = computed(() => {
    const meter = this.meter();
    const step = (countTicks(meter) * meter.beats) / this.columns();
    return Array.from({ length: this.columns() }, (_, k) => {
      const count = countAt(Math.round(k * step), meter);
      return { text: count.between || `${count.beat}`, strong: !count.between };
    });
  });

  constructor() {
    openSong(this.id);
  }

  ngOnDestroy(): void {
    this.player.stop();
  }

  private empty(): Draft {
    const { beats } = untracked(this.meter);
    const taken = new Set(untracked(this.own).map((t) => t.title));
    let n = 1;
    while (taken.has($localize`Pattern ${n}`)) n++;
    const steps = Array.from({ length: beats }, (_, k) => (k === 0 ? '1' : '-')).join(' ');
    return {
      id: `own-${Date.now().toString(36)}`,
      title: $localize`Pattern ${n}`,
      energy: 3,
      steps: regrid(steps, 1, beats * 2),
    };
  }

  protected fresh(): void {
    this.draft.set(this.empty());
  }

  /** Opens a figure: one's own to change it, one that ships as a copy. */
  protected take({ id, title, energy, patterns }: Texture): void {
    const mine = this.own().some((t) => t.id === id);
    const { beats } = this.meter();
    const steps = patterns.find((p) => p.meter === this.meterText())?.steps ?? Array.from({ length: beats }, () => '-').join(' ');
    const bars = barsOf(steps);
    // Columns for whole counts at least, so that the grid can be written on.
    const columns = bars[0].length % beats === 0 ? bars[0].length : beats * Math.ceil(bars[0].length / beats);
    const laid = columns === bars[0].length ? steps : regrid(steps, bars.length, columns);
    this.draft.set({ ...(mine ? { id, title } : { id: this.empty().id, title: $localize`My ${title}` }), energy, steps: laid });
  }

  protected isSet(bar: number, column: number, row: GridRow): boolean {
    return rowsOf(this.bars()[bar][column]).includes(row);
  }

  /** The cell that had the focus last. */
  private readonly at = signal<{ readonly row: GridRow; readonly column: number }>({ row: this.rows[0].id, column: 0 });
  /** The one cell that the tab key comes to; the arrow keys go on from it. */
  protected readonly stop = computed(() => ({
    row: this.at().row,
    column: Math.min(this.at().column, this.columns() * this.bars().length - 1),
  }));
  private readonly cells = viewChild<ElementRef<HTMLElement>>('cells');

  protected enter(target: EventTarget | null): void {
    const [row, column] = (target instanceof HTMLElement ? (target.dataset['cell'] ?? '') : '').split(' ');
    const found = this.rows.find((r) => r.id === row);
    if (found) this.at.set({ row: found.id, column: Number(column) });
  }

  protected move(event: KeyboardEvent): void {
    const { row, column } = this.stop();
    const last = this.columns() * this.bars().length - 1;
    const ends: Readonly<Partial<Record<string, number>>> = { Home: -column, End: last - column };
    const [down, right] = STEPS[event.key] ?? [0, ends[event.key] ?? 0];
    if (down === 0 && right === 0) return;
    event.preventDefault();
    const next = this.rows[this.rows.findIndex((r) => r.id === row) + down] as { id: string } | undefined;
    const cell = `[data-cell="${next?.id ?? ''} ${column + right}"]`;
    this.cells()?.nativeElement.querySelector<HTMLElement>(cell)?.focus();
  }

  /** Sets or clears a cell and lets its column be heard over the first chord of the part. */
  protected press(bar: number, column: number, row: GridRow): void {
    const token = toggleRow(this.bars()[bar][column], row);
    this.change({ steps: withColumn(this.draft().steps, bar, column, token) });
    const doc = this.desk.document();
    const chord = this.desk.currentPart()?.chords[0]?.symbol ?? 'C';
    if (doc) void this.player.strike(columnKeys(token, chord, doc.hands, doc.song.key).map(midiOf));
  }

  protected change(change: Partial<Draft>): void {
    this.draft.update((d) => ({ ...d, ...change }));
  }

  protected divide(division: Division): void {
    this.change({ steps: regrid(this.draft().steps, this.bars().length, this.meter().beats * Number(division)) });
  }

  protected lengthen(length: Length): void {
    this.change({ steps: regrid(this.draft().steps, Number(length), this.columns()) });
  }

  /** The draft as a texture, with the patterns that it has in other meters. */
  private textureOf({ id, title, energy, steps }: Draft): Texture {
    const others =
      this.own()
        .find((t) => t.id === id)
        ?.patterns.filter((p) => p.meter !== this.meterText()) ?? [];
    return {
      id,
      title: title.trim(),
      energy,
      patterns: [...others, { meter: this.meterText(), steps }],
    };
  }

  protected async save(): Promise<void> {
    const texture = this.textureOf(this.draft());
    await this.desk.edit({ code: 'edit.save-texture', texture });
  }

  /** Keeps the figure and lays it under the part at work. */
  protected async useHere(): Promise<void> {
    const texture = this.textureOf(this.draft());
    const part = this.desk.currentPart();
    if (!part) return;
    await this.desk.edit(usedIn(part, texture));
    this.toasts.say($localize`${texture.title} is now used in part ${part.number}.`);
  }

  protected async remove(texture: Texture): Promise<void> {
    const { id, title } = texture;
    await this.desk.edit({ code: 'edit.remove-texture', id, title });
    if (this.draft().id === texture.id) this.fresh();
  }

  /** The current part with the draft under it. */
  protected async hear(): Promise<void> {
    if (this.player.state() !== 'silent') {
      this.player.stop();
      return;
    }
    const doc = this.desk.document();
    const part = this.desk.currentPart();
    if (!doc || !part) return;
    const texture = this.textureOf(this.draft());
    const trial = applyEdit(doc, usedIn(part, texture));
    const arranged = await this.workers.arranger.call('arrange', trial);
    if (!arranged.ok) {
      this.fault.set($localize`This pattern could not be arranged: ${TROUBLE[arranged.trouble]}. Change it and try again.`);
      return;
    }
    const arrangement = arranged.value;
    const options = asArranged(arrangement, this.settings.tempoPercent());
    await this.player.play(scheduleSounds(arrangement, arrangement.parts[part.number - 1], { ...options, scope: 'part' }));
  }

  protected exportAll(): void {
    download('figures.json', writeTextures(this.own()), 'application/json');
  }

  protected async importFile(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    const read = file.size > 1_000_000 ? null : readTextures(await file.text());
    if (!read) {
      this.fault.set($localize`This file is too large for a file of patterns. Nothing was changed.`);
      return;
    }
    if (!read.ok) {
      this.fault.set(this.words.say().fact(read.fault));
      return;
    }
    this.fault.set(null);
    const edits = read.textures.map((texture): Edit => ({ code: 'edit.save-texture', texture }));
    await this.desk.edit({ code: 'edit.several', as: { kind: 'import-textures' }, edits });
    this.take(read.textures[0]);
  }
}

/** A pattern that is saved and laid under a part. */
const usedIn = (part: Part, texture: Texture): Edit => ({
  code: 'edit.several',
  as: { kind: 'use-texture', title: texture.title, part: part.number },
  edits: [
    { code: 'edit.save-texture', texture },
    { code: 'edit.setting', range: rangeOf(part), setting: 'texture', value: texture.id },
  ],
});
