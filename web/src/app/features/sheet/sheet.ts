import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { Actions } from '../../platform/state/actions';
import { openSong } from '../../platform/state/open-song';
import { DeskStore } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { download, fileName } from '../../platform/download';
import { Choice } from '../../ui/choice';
import { MissingSong } from '../../ui/missing-song';
import { Paper, type PaperKind } from './paper';
import type { ExportKind } from '../../platform/workers/arranger.worker';
import { Toasts } from '../../platform/toasts';
import { TROUBLE, Workers } from '../../platform/workers/workers';
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
  { kind: 'letters', text: 'Letter lines', ending: 'letters', type: 'text/plain' },
  { kind: 'abc', text: 'ABC', ending: 'abc', type: 'text/vnd.abc' },
  { kind: 'lesson', text: 'Lesson text', ending: 'txt', type: 'text/plain' },
  { kind: 'project', text: 'Project', ending: 'json', type: 'application/json' },
];

const KINDS: readonly { readonly id: 'staff' | PaperKind; readonly text: string }[] = [
  { id: 'staff', text: 'Staff' },
  { id: 'letters', text: 'Letters' },
  { id: 'lesson', text: 'Lesson' },
  { id: 'worksheet', text: 'Worksheet' },
  { id: 'chords', text: 'Chords' },
];

/** The sheet for the stand: an engraved grand staff, the letter chart, a lesson, a worksheet or the chords; to print and to export. */
@Component({
  selector: 'jh-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, MissingSong, Paper],
  templateUrl: './sheet.html',
  styleUrl: './sheet.less',
})
export class Sheet {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly settings = inject(SettingsStore);
  private readonly workers = inject(Workers);
  private readonly toasts = inject(Toasts);
  private readonly sanitizer = inject(DomSanitizer);
  protected readonly exports = EXPORTS;
  protected readonly papers = PAPER_CHOICES;
  protected readonly style = signal<'staff' | PaperKind>('staff');
  protected readonly pages = signal<readonly SafeHtml[]>([]);
  protected readonly trouble = signal<string | null>(null);
  protected readonly kinds = KINDS;
  protected readonly paperKind = computed((): PaperKind => {
    const style = this.style();
    return style === 'staff' ? 'letters' : style;
  });
  private readonly begin = latestWins();

  constructor() {
    openSong(this.id);
    inject(Actions).register(() => [
      { name: 'Print', run: () => this.print() },
      ...KINDS.map(({ id, text }) => ({ name: `Sheet: ${text}`, run: () => this.style.set(id) })),
      ...EXPORTS.map((entry) => ({ name: `Save as ${entry.text}`, run: () => void this.export(entry) })),
    ]);
    effect(() => this.setPaperForPrint(this.settings.paper()));
    effect(() => {
      const document = this.desk.document();
      const paper = PAPERS[this.settings.paper()];
      if (document && this.style() === 'staff') untracked(() => void this.engrave(paper));
    });
  }

  /** The page size cannot be chosen by a class, so it has a style of its own. */
  private setPaperForPrint(paper: 'a4' | 'letter'): void {
    const style = document.getElementById('paper') ?? document.head.appendChild(document.createElement('style'));
    style.id = 'paper';
    style.textContent = pageRule(paper, this.style() === 'staff');
  }

  private async engrave(paper: (typeof PAPERS)['a4' | 'letter']): Promise<void> {
    const document = this.desk.document();
    if (!document) return;
    const isLatest = this.begin();
    const xml = await this.workers.arranger.call('write', 'musicxml', document, this.settings.noteNames());
    const pages = xml.ok ? await this.workers.engraver.call('engrave', String(xml.value), paper) : xml;
    if (!isLatest()) return;
    if (!pages.ok)
      return this.trouble.set(
        `The staff could not be engraved: ${TROUBLE[pages.trouble]}. The letter chart and the exports still work.`,
      );
    // The engraver's SVG is made here from the song's own notes and escaped text.
    this.pages.set(pages.value.map((svg) => this.sanitizer.bypassSecurityTrustHtml(svg)));
    this.trouble.set(null);
  }

  protected async export(entry: ExportEntry): Promise<void> {
    const document = this.desk.document();
    if (!document) return;
    const content = await this.workers.arranger.call('write', entry.kind, document, this.settings.noteNames());
    if (!content.ok) return this.toasts.say(`The file could not be written: ${TROUBLE[content.trouble]}. Try again.`);
    download(`${fileName(document.song.title)}.${entry.ending}`, content.value, entry.type);
  }

  /** Whose song it is, as the sheet is to say it. */
  protected credit(by: string): void {
    const composer = by.trim().slice(0, 200) || null;
    void this.desk.edit({ code: 'edit.facts', change: { composer } });
  }

  protected print(): void {
    window.print();
  }
}

/** The page for print: the engraver sets its own margins and numbers; other sheets have them here. */
function pageRule(paper: string, engraved: boolean): string {
  if (engraved) return `@page { size: ${paper}; margin: 0; }`;
  return `@page { size: ${paper}; margin: 14mm; @bottom-right { content: counter(page); font: 11px sans-serif; } }`;
}
