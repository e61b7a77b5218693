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
  untracked,
  viewChild,
} from '@angular/core';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { Actions } from '../../platform/state/actions';
import { openSong } from '../../platform/state/open-song';
import { DeskStore } from '../../platform/state/desk.store';
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
import type { ExportKind } from '../../platform/workers/arranger.worker';
import { Toasts } from '../../platform/toasts';
import type { Trouble } from '../../platform/workers/worker-client';
import { TROUBLE, Workers } from '../../platform/workers/workers';
import { Words } from '../../platform/words';
import { latestWins } from '../../platform/latest';

/** Paper in tenths of a millimetre. */
const PAPERS = { a4: { width: 2100, height: 2970 }, letter: { width: 2159, height: 2794 } } as const;

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

/** The sheet for the stand: an engraved grand staff, the letter chart, a lesson, a worksheet or the chords; to print and to export. */
@Component({
  selector: 'jh-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, MissingSong, More, NzProgressComponent, Paper],
  templateUrl: './sheet.html',
  styleUrl: './sheet.less',
})
export class Sheet {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly settings = inject(SettingsStore);
  private readonly workers = inject(Workers);
  private readonly toasts = inject(Toasts);
  private readonly words = inject(Words);
  private readonly sanitizer = inject(DomSanitizer);
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
  protected readonly pages = signal<readonly SafeHtml[]>([]);
  /** How many pages there will be. */
  protected readonly expected = signal(0);
  protected readonly trouble = signal<string | null>(null);
  protected readonly kinds = KINDS;
  protected readonly paperKind = computed((): PaperKind => {
    const style = this.style();
    return style === 'staff' ? 'letters' : style;
  });
  private readonly application = inject(ApplicationRef);
  private engraving = Promise.resolve();
  private readonly begin = latestWins();

  constructor() {
    openSong(this.id);
    inject(Actions).register(() => [
      { name: $localize`Print`, run: () => void this.print() },
      ...KINDS.map(({ id, text }) => ({ name: $localize`Sheet: ${text}`, run: () => this.style.set(id) })),
      ...this.saves().map(({ name, run }) => ({ name: $localize`Save as ${name}`, run, keywords: $localize`export, download` })),
    ]);
    effect(() => this.setPaperForPrint(this.settings.paper()));
    effect(() => {
      const document = this.desk.document();
      const paper = PAPERS[this.settings.paper()];
      if (document && this.style() === 'staff') untracked(() => this.begunEngraving(paper));
    });
  }

  /** The page size cannot be chosen by a class, so it has a style of its own. */
  private setPaperForPrint(paper: 'a4' | 'letter'): void {
    const style = document.getElementById('paper') ?? document.head.appendChild(document.createElement('style'));
    style.id = 'paper';
    style.textContent = pageRule(paper, this.style() === 'staff');
  }

  private begunEngraving(paper: (typeof PAPERS)['a4' | 'letter']): void {
    this.engraving = this.engrave(paper);
  }

  private async engrave(paper: (typeof PAPERS)['a4' | 'letter']): Promise<void> {
    const document = this.desk.document();
    if (!document) return;
    const isLatest = this.begin();
    const xml = await this.workers.arranger.call('write', 'page', document, this.settings.noteNames());
    const laid = xml.ok ? await this.workers.engraver.call('lay', String(xml.value), paper) : xml;
    if (!isLatest()) return;
    if (!laid.ok) {
      this.notEngraved(laid.trouble);
      return;
    }
    this.trouble.set(null);
    // The first page is there at once, and the others follow.
    const pages = [laid.value.first];
    this.expected.set(laid.value.pages);
    this.show(pages);
    while (pages.length < laid.value.pages) {
      const page = await this.workers.engraver.call('page', pages.length + 1);
      if (!isLatest()) return;
      if (!page.ok) {
        this.notEngraved(page.trouble);
        return;
      }
      pages.push(page.value);
      this.show(pages);
    }
  }

  private show(pages: readonly string[]): void {
    // The engraver's SVG is made here from the song's own notes and escaped text.
    this.pages.set(pages.map((svg) => this.sanitizer.bypassSecurityTrustHtml(svg)));
  }

  private notEngraved(trouble: Trouble): void {
    this.trouble.set(
      $localize`The staff could not be engraved: ${TROUBLE[trouble]}. The letter chart and the exports still work.`,
    );
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

  /** Whose song it is, as the sheet is to say it. */
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

  protected credit(by: string): void {
    const composer = by.trim().slice(0, 200) || null;
    void this.desk.edit({ code: 'edit.facts', change: { composer } });
  }

  /** All pages are there before they are printed. */
  protected async print(): Promise<void> {
    await this.engraving;
    await this.application.whenStable();
    window.print();
  }
}

/** The page for print: the engraver sets its own margins and numbers; other sheets have them here. */
function pageRule(paper: string, engraved: boolean): string {
  if (engraved) return `@page { size: ${paper}; margin: 0; }`;
  return $localize`@page { size: ${paper}; margin: 14mm; @bottom-right { content: counter(page); font: 11px sans-serif; } }`;
}
