import {
  ApplicationRef,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { Router } from '@angular/router';
import { Actions } from '../../platform/state/actions';
import { openSong } from '../../platform/state/open-song';
import { DeskStore } from '../../platform/state/desk.store';
import { nameOfPlayer, PlayersStore } from '../../platform/state/players.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { download, fileName } from '../../platform/download';
import { asArranged, scheduleStretch } from '../../platform/audio/schedule';
import { SoundFiles } from '../../platform/audio/sound-file';
import { pictureOf } from '../../platform/picture';
import type { SoundFormat } from '../../platform/workers/mixer.worker';
import { NzProgressComponent } from 'ng-zorro-antd/progress';
import { More, type MenuItem } from '../../ui/more';
import { Choice } from '../../ui/choice';
import { MissingSong } from '../../ui/missing-song';
import { Paper, type PaperKind } from './paper';
import { SheetsFor } from './sheets-for';
import type { ExportKind } from '../../platform/workers/arranger.worker';
import { Toasts } from '../../platform/toasts';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { Words } from '../../platform/words';

const PAPER_CHOICES = [
  { id: 'a4', text: 'A4' },
  { id: 'letter', text: 'Letter' },
] as const;

interface ExportEntry {
  readonly kind: ExportKind;
  readonly text: string;
  readonly ending: string;
  readonly type: string;
}

const EXPORTS: readonly ExportEntry[] = [
  { kind: 'musicxml', text: 'MusicXML', ending: 'musicxml', type: 'application/vnd.recordare.musicxml+xml' },
  { kind: 'midi', text: 'MIDI', ending: 'mid', type: 'audio/midi' },
  { kind: 'letters', text: $localize`Letter lines`, ending: 'letters', type: 'text/plain' },
  { kind: 'abc', text: 'ABC', ending: 'abc', type: 'text/vnd.abc' },
  { kind: 'chordpro', text: $localize`Words with chords (ChordPro)`, ending: 'cho', type: 'text/plain' },
  { kind: 'lesson', text: $localize`Lesson text`, ending: 'txt', type: 'text/plain' },
  { kind: 'project', text: $localize`Project`, ending: 'json', type: 'application/json' },
];

const KINDS: readonly { readonly id: 'staff' | PaperKind; readonly text: string }[] = [
  { id: 'staff', text: $localize`Staff` },
  { id: 'letters', text: $localize`Letters` },
  { id: 'words', text: $localize`Words` },
  { id: 'lesson', text: $localize`Lesson` },
  { id: 'worksheet', text: $localize`Worksheet` },
  { id: 'chords', text: $localize`Chords` },
];

/** For whom sheets are laid, as the address says it. */
const EVERYONE = 'everyone';
const NOW = 'now';

/** The sheet for the stand: an engraved grand staff, the letter chart, a lesson, a worksheet or the chords; to print and to export. */
@Component({
  selector: 'jh-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, MissingSong, More, NzProgressComponent, Paper],
  providers: [SheetsFor],
  templateUrl: './sheet.html',
  styleUrl: './sheet.less',
})
export class Sheet {
  readonly id = input.required<string>();
  /** For whom: "everyone", or whoever plays now. */
  readonly for = input<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly settings = inject(SettingsStore);
  private readonly workers = inject(Workers);
  private readonly toasts = inject(Toasts);
  private readonly words = inject(Words);
  protected readonly sheets = inject(SheetsFor);
  protected readonly players = inject(PlayersStore);
  private readonly router = inject(Router);
  protected readonly sounds = inject(SoundFiles);
  private readonly table = viewChild<ElementRef<HTMLElement>>('table');
  protected readonly percent = computed(() => Math.round(100 * (this.sounds.progress() ?? 0)));
  /** Every form in which it leaves the browser. */
  protected readonly saves = computed((): MenuItem[] => [
    ...EXPORTS.map((entry) => ({ name: entry.text, run: () => void this.export(entry) })),
    { name: $localize`Sound (WAV)`, run: () => void this.saveSound('wav') },
    { name: $localize`Sound, compressed (WebM)`, run: () => void this.saveSound('webm') },
    { name: $localize`Picture of the first page (PNG)`, run: () => void this.savePicture() },
  ]);
  protected readonly papers = PAPER_CHOICES;
  protected readonly style = signal<'staff' | PaperKind>('staff');
  protected readonly kinds = KINDS;
  protected readonly paperKind = computed((): PaperKind => {
    const style = this.style();
    return style === 'staff' ? 'letters' : style;
  });
  private readonly application = inject(ApplicationRef);
  /** For whom there are sheets, where there is more than one. */
  protected readonly readers = computed(() => [
    { id: NOW, text: nameOfPlayer(this.players.current()) },
    { id: EVERYONE, text: $localize`Everyone` },
  ]);

  constructor() {
    openSong(this.id);
    inject(Actions).register(() => [
      { name: $localize`Print`, run: () => void this.print() },
      ...KINDS.map(({ id, text }) => ({ name: $localize`Sheet: ${text}`, run: () => this.style.set(id) })),
      ...this.saves().map(({ name, run }) => ({ name: $localize`Save as ${name}`, run, keywords: $localize`export, download` })),
    ]);
    effect(() => this.setPaperForPrint(this.settings.paper()));
    effect(() => this.sheets.staff.set(this.style() === 'staff'));
    effect(() => this.sheets.everyone.set(this.for() === EVERYONE && this.players.several()));
  }

  /** The page size cannot be chosen by a class, so it has a style of its own. */
  private setPaperForPrint(paper: 'a4' | 'letter'): void {
    const style = document.getElementById('paper') ?? document.head.appendChild(document.createElement('style'));
    style.id = 'paper';
    style.textContent = pageRule(paper, this.style() === 'staff');
  }

  protected async export(entry: ExportEntry): Promise<void> {
    const document = this.desk.document();
    if (!document) return;
    const content = await this.workers.arranger.call('write', entry.kind, document, this.settings.noteNames());
    if (!content.ok) {
      this.toasts.say($localize`The file could not be written: ${TROUBLE[content.trouble]}. Try again.`);
      return;
    }
    download(`${fileName(document.song.title)}.${entry.ending}`, content.value, entry.type);
    if (entry.kind !== 'letters' && entry.kind !== 'abc') return;
    const counted = await this.workers.arranger.call('leftOut', entry.kind, document);
    if (counted.ok && counted.value.length > 0)
      this.toasts.say(this.words.say().fact({ code: 'notice.not-written', counted: counted.value }));
  }

  /** The arrangement as it sounds, at the tempo at which it is practised. */
  private async saveSound(format: SoundFormat): Promise<void> {
    const arrangement = this.desk.arrangement();
    if (!arrangement) return;
    const all = asArranged(arrangement, this.settings.tempoPercent());
    const { sounds } = scheduleStretch(arrangement, 0, arrangement.song.length, all);
    const made = await this.sounds.make(sounds, format);
    if (!made.ok) {
      this.toasts.say(
        made.trouble === 'stopped'
          ? $localize`No sound file was made.`
          : $localize`The sound file could not be made: ${TROUBLE[made.trouble]}.`,
      );
      return;
    }
    if (!made.value) {
      this.toasts.say($localize`This browser cannot compress sound. Save it as WAV.`);
      return;
    }
    download(`${fileName(arrangement.song.title)}.${format}`, made.value, `audio/${format}`);
  }

  /** What is on the first page now. */
  private async savePicture(): Promise<void> {
    const page = this.table()?.nativeElement.querySelector<HTMLElement>('.page');
    if (!page) return;
    try {
      download(`${fileName(this.desk.document()?.song.title ?? '')}-${this.style()}.png`, await pictureOf(page), 'image/png');
    } catch {
      this.toasts.say($localize`The picture could not be made. Print to PDF gives the same page.`);
    }
  }

  protected layFor(whom: string): void {
    void this.router.navigate([], { queryParams: { for: whom === EVERYONE ? EVERYONE : null }, replaceUrl: true });
  }

  protected credit(by: string): void {
    const composer = by.trim().slice(0, 200) || null;
    void this.desk.edit({ code: 'edit.facts', change: { composer } });
  }

  /** All pages are there before they are printed. */
  protected async print(): Promise<void> {
    await this.sheets.made();
    await this.application.whenStable();
    window.print();
  }
}

/** The page for print: the engraver sets its own margins and numbers; other sheets have them here. */
function pageRule(paper: string, engraved: boolean): string {
  if (engraved) return `@page { size: ${paper}; margin: 0; }`;
  return $localize`@page { size: ${paper}; margin: 14mm; @bottom-right { content: counter(page); font: 11px sans-serif; } }`;
}
