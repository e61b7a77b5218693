import { passTitle } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { ScrollingModule } from '@angular/cdk/scrolling';
import { RouterLink } from '@angular/router';
import {
  accuracyMap,
  dayOf,
  daysInARow,
  logCsv,
  minutesPerDay,
  readLog,
  tempoReached,
  writeLog,
  type Day,
  type Pass,
} from '@joined-hands/core/log';
import { dueAhead } from '@joined-hands/core/practice';
import type { EChartsCoreOption } from 'echarts/core';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { DeskStore } from '../../platform/state/desk.store';
import { PracticeStore } from '../../platform/state/practice.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { download, fileName } from '../../platform/download';
import { Toasts } from '../../platform/toasts';
import { Modal } from '../../ui/modal';
import { Dropdown } from '../../ui/dropdown';
import { inMinutes, PassForm } from './pass-form';
import { accuracyChart, charts, dayChart, tempoChart } from './log-charts';
import type { Term } from '../../ui/words/glossary';
import { What } from '../../ui/words/what';
import { Words } from '../../platform/words';

const ALL = 'all';
const ONLY = [
  { id: 'all', text: $localize`all passes` },
  { id: 'clean', text: $localize`clean ones` },
  { id: 'not', text: $localize`not clean yet` },
] as const;
const ORDERS = [
  { id: 'latest', text: $localize`latest first` },
  { id: 'earliest', text: $localize`earliest first` },
  { id: 'least', text: $localize`fewest correct notes first` },
] as const;

/** Share of the notes that were right; passes that nothing listened to come last. */
const shareRight = ({ figures: f }: Pass): number => (f && f.notes > 0 ? f.right / f.notes : 2);

/** Days that the charts look back and ahead. */
const DAYS = 14;
/** Pixels of a row of the list. */
const ROW = 46;

/** A row of the list: a day (null), or one of its passes. */
interface LogRow {
  readonly day: Day;
  readonly pass: Pass | null;
}

interface Figure {
  readonly title: string;
  /** What it is about, among the words that are explained. */
  readonly term: Term | null;
  readonly aside: string;
  readonly options: EChartsCoreOption;
  readonly say: string;
}

/** The practice log: what was played, how it goes, what comes back, and every pass to look at, change or take out. */
@Component({
  selector: 'jh-log',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Modal, NgxEchartsDirective, PassForm, Dropdown, RouterLink, ScrollingModule, What],
  providers: [provideEchartsCore({ echarts: charts })],
  templateUrl: './log.html',
  styleUrl: './log.less',
})
export class LogScreen {
  protected readonly words = inject(Words);
  protected readonly practice = inject(PracticeStore);
  private readonly desk = inject(DeskStore);
  private readonly settings = inject(SettingsStore);
  private readonly toasts = inject(Toasts);
  protected readonly fault = signal<string | null>(null);
  protected readonly changing = signal<Pass | null>(null);

  /** Songs that were practised, the last first. */
  protected readonly songs = computed(() => {
    const songs = new Map<string, string>();
    for (const p of [...this.practice.passes()].reverse())
      if (p.song && p.parts && !songs.has(p.song)) songs.set(p.song, p.title);
    return [...songs].map(([id, title]) => ({ id, title }));
  });
  protected readonly choices = computed(() => [
    { id: ALL, text: $localize`everything` },
    ...this.songs().map(({ id, title }) => ({ id, text: title })),
  ]);
  protected readonly chosen = signal<string | null>(null);
  /** The song whose passes are shown, or all: the open song where it was practised. */
  protected readonly shown = computed(() => {
    const wished = this.chosen() ?? this.desk.id();
    return this.songs().find((s) => s.id === wished)?.id ?? ALL;
  });
  protected readonly passes = computed(() => {
    if (!this.practice.loaded()) return this.practice.recent();
    return this.shown() === ALL ? this.practice.passes() : (this.practice.bySong().get(this.shown()) ?? []);
  });
  /** The charts by part are of one song: the one shown, or the last practised. */
  protected readonly song = computed(() => this.songs().find((s) => s.id === this.shown()) ?? this.songs().at(0) ?? null);
  private readonly ofSong = computed(() => this.practice.bySong().get(this.song()?.id ?? null) ?? []);

  private readonly days = computed(() => minutesPerDay(this.passes(), this.practice.today(), DAYS));
  private readonly ahead = computed(() => dueAhead(this.passes(), this.practice.today(), DAYS));
  private readonly reached = computed(() => tempoReached(this.ofSong()));
  private readonly accuracy = computed(() => accuracyMap(this.ofSong()));

  /** The charts, each with what a reader of the screen hears in its place. */
  protected readonly figures = computed((): readonly Figure[] => {
    const [theme, song] = [this.settings.theme(), this.song()];
    const [days, ahead, reached, accuracy] = [this.days(), this.ahead(), this.reached(), this.accuracy()];
    const due = ahead[0].count;
    const ofAll: Figure[] = [
      {
        title: $localize`Minutes each day`,
        term: null,
        aside: '',
        options: dayChart(
          days.map(({ day, minutes }) => ({ day, value: minutes })),
          '--left',
          theme,
        ),
        say: sayDays(days.map((d) => [d.day, $localize`${d.minutes} minutes`, d.minutes])),
      },
      {
        title: $localize`Due for review`,
        term: 'due' as const,
        aside: due > 0 ? `${due} today` : $localize`nothing today`,
        options: dayChart(
          ahead.map(({ day, count }) => ({ day, value: count })),
          '--join',
          theme,
        ),
        say: sayDays(ahead.map((d) => [d.day, $localize`${d.count} due`, d.count])),
      },
    ];
    if (!song) return ofAll;
    return [
      ...ofAll,
      {
        title: $localize`Tempo reached, by part`,
        term: 'tempoReached' as const,
        aside: $localize`${song.title}; the line marks the goal`,
        options: tempoChart(reached, theme),
        say: reached.map((r) => $localize`part ${r.parts}\: ${r.tempo} of ${r.goal}`).join('; '),
      },
      {
        title: $localize`Correct notes in percent, by part and hand`,
        term: 'accuracy' as const,
        aside: $localize`the last five passes`,
        options: accuracyChart(accuracy, theme),
        say: accuracy.map((c) => $localize`part ${c.parts}, ${c.hands}\: ${c.accuracy} percent`).join('; '),
      },
    ];
  });

  /** The last two weeks in one sentence. */
  protected readonly summary = computed(() => {
    const days = this.days();
    const minutes = Math.round(days.reduce((sum, d) => sum + d.minutes, 0));
    const count = days.filter((d) => d.minutes > 0).length;
    const row = daysInARow(this.passes(), this.practice.today());
    return this.words.say().fact({ code: 'screen.fortnight', minutes, days: count, inARow: row });
  });
  /** The rows of the list: passes, the last first, under their days. Only those that are seen are made. */
  protected readonly rows = computed((): readonly LogRow[] => {
    const rows: LogRow[] = [];
    let day: Day | null = null;
    const [only, order] = [this.only(), this.order()];
    const listed = this.passes().filter((p) => only === 'all' || p.clean === (only === 'clean'));
    if (order === 'latest') listed.reverse();
    if (order === 'least') listed.sort((a, b) => shareRight(a) - shareRight(b));
    for (const pass of listed) {
      if (order === 'least') {
        rows.push({ day: pass.day, pass });
        continue;
      }
      if (pass.day !== day) rows.push({ day: (day = pass.day), pass: null });
      rows.push({ day, pass });
    }
    return rows;
  });
  /** Which passes are listed, and in what order. */
  protected readonly onlies = ONLY;
  protected readonly only = signal<(typeof ONLY)[number]['id']>('all');
  protected readonly orders = ORDERS;
  protected readonly order = signal<(typeof ORDERS)[number]['id']>('latest');
  protected readonly height = ROW;
  protected readonly titleOf = longDay;
  protected readonly shortDay = shortDay;
  protected keyOf(_: number, { day, pass }: LogRow): string {
    return pass?.id ?? day;
  }

  protected readonly madeUp = computed(() => this.practice.passes().filter((p) => p.id.startsWith('demo-')));

  constructor() {
    void this.practice.load();
  }

  protected name(pass: Pass): string {
    const name = passTitle(pass);
    return this.shown() === ALL && name !== pass.title ? `${pass.title}: ${name}` : name;
  }

  /** "16 of 16, 3 late". */
  protected heard({ figures: f }: Pass): string {
    if (!f) return $localize`not recorded`;
    const late = f.late > 0 ? $localize`, ${f.late} late` : '';
    return $localize`${f.right} of ${f.notes}${f.early > 0 ? $localize`, ${f.early} early` : ''}${late}`;
  }

  protected time(at: number): string {
    return new Date(at).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
  }

  protected length(pass: Pass): string {
    return pass.seconds < 60 ? `${Math.round(pass.seconds)} s` : `${inMinutes(pass).toFixed(1)} min`;
  }

  protected remove(passes: readonly Pass[]): void {
    void this.practice.remove(passes);
    const text = this.words.say().fact({ code: 'screen.passes-removed', passes: passes.length });
    this.toasts.say(text, { label: $localize`Put back`, run: () => void this.practice.keep(passes) });
  }

  protected change(pass: Pass): void {
    this.changing.set(null);
    void this.practice.keep([pass]);
  }

  protected saveCsv(): void {
    download(`${this.fileStem()}.csv`, logCsv(this.passes()), 'text/csv');
  }

  protected saveJson(): void {
    download(`${this.fileStem()}.json`, writeLog(this.passes()), 'application/json');
  }

  protected async take(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    const read = readLog(await file.text());
    if (!read.ok) {
      this.fault.set(`${file.name}: ${this.words.say().fact(read.fact)}`);
      return;
    }
    this.fault.set(null);
    const here = new Set(this.practice.passes().map((p) => p.id));
    const fresh = read.passes.filter((p) => !here.has(p.id));
    await this.practice.keep(fresh);
    const known = read.passes.length - fresh.length;
    this.toasts.say(this.words.say().fact({ code: 'screen.passes-added', passes: fresh.length, known }));
  }

  private fileStem(): string {
    const song = this.shown() === ALL ? '' : `-${fileName(this.song()?.title ?? '')}`;
    return `practice-log${song}-${dayOf(new Date())}`;
  }
}

const longDay = (day: Day): string =>
  new Date(`${day}T12:00:00`).toLocaleDateString(undefined, { weekday: 'long', day: 'numeric', month: 'long' });

const shortDay = (day: Day): string =>
  new Date(`${day}T12:00:00`).toLocaleDateString(undefined, { day: 'numeric', month: 'short' });

function sayDays(days: readonly (readonly [Day, string, number])[]): string {
  const said = days.filter(([, , n]) => n > 0).map(([day, text]) => `${longDay(day)}: ${text}`);
  return said.join('; ') || 'nothing';
}
