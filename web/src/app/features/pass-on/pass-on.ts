import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { writeParcel, type Task, type TaskItem } from '@joined-hands/core/passing';
import { writeLog } from '@joined-hands/core/log';
import { STEP_LABELS } from '@joined-hands/core/words';
import { download, downloadProject, fileName } from '../../platform/download';
import { latestWins } from '../../platform/latest';
import { DeskStore } from '../../platform/state/desk.store';
import { openSong } from '../../platform/state/open-song';
import { PlayersStore } from '../../platform/state/players.store';
import { PracticeStore } from '../../platform/state/practice.store';
import { Toasts } from '../../platform/toasts';
import { Words } from '../../platform/words';
import { Dropdown } from '../../ui/dropdown';
import { MissingSong } from '../../ui/missing-song';
import { NumberField } from '../../ui/number-field';

/** What a code to be photographed holds without being too fine for a phone. */
const LONGEST_CODE = 2300;

/** What a teacher may ask for, the usual first. */
const ASKED = ['slow', 'right', 'left', 'tempo', 'join'] as const;

/** A song to be sent: a link that holds it whole, a code, a file; with a task for the week; and what was practised, back. */
@Component({
  selector: 'jh-pass-on',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Dropdown, MissingSong, NumberField],
  templateUrl: './pass-on.html',
  styleUrl: './pass-on.less',
})
export class PassOn {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  private readonly practice = inject(PracticeStore);
  private readonly players = inject(PlayersStore);
  private readonly toasts = inject(Toasts);
  private readonly words = inject(Words);
  protected readonly items = signal<readonly TaskItem[]>([]);
  protected readonly note = signal('');
  protected readonly works = ASKED.map((id) => ({ id, text: STEP_LABELS[id] }));
  protected readonly parts = computed(() =>
    (this.desk.arrangement()?.parts ?? []).map(({ number }) => ({ id: number, text: $localize`part ${number}` })),
  );
  protected readonly passes = computed(() => this.practice.bySong().get(this.desk.id()) ?? []);
  protected readonly practised = computed(() => this.words.say().fact({ code: 'screen.passes', passes: this.passes().length }));
  private readonly task = computed((): Task | null =>
    this.items().length > 0 || this.note().trim() ? { note: this.note().trim().slice(0, 500), items: [...this.items()] } : null,
  );
  /** The link that holds the song whole. */
  protected readonly link = computed(() => {
    const document = this.desk.document();
    return document ? addressOf(writeParcel({ kind: 'song', document, task: this.task() })) : '';
  });
  /** The link as a code to be photographed; null where it is too long for one. */
  protected readonly code = signal<string | null>(null);
  private readonly begin = latestWins();

  constructor() {
    openSong(this.id);
    void this.practice.load();
    effect(() => {
      const link = this.link();
      untracked(() => void this.draw(link));
    });
  }

  private async draw(link: string): Promise<void> {
    const isLatest = this.begin();
    if (!link || link.length > LONGEST_CODE) {
      this.code.set(null);
      return;
    }
    const { default: codes } = await import('qrcode');
    const code = await codes.toDataURL(link, { errorCorrectionLevel: 'L', margin: 4, scale: 5 }).catch(() => null);
    if (isLatest()) this.code.set(code);
  }

  protected add(): void {
    const tempo = Math.round((this.desk.arrangement()?.song.tempo ?? 80) * 0.75);
    const last = this.items().at(-1);
    const part = Math.min(this.parts().length, (last?.to ?? 0) + 1);
    this.items.update((all) => [...all, { kind: 'slow', from: part, to: part, tempo }]);
  }

  protected change(index: number, change: Partial<TaskItem>): void {
    this.items.update((all) =>
      all.map((item, i) => {
        if (i !== index) return item;
        const next = { ...item, ...change };
        return { ...next, to: Math.max(next.from, next.to) };
      }),
    );
  }

  protected remove(index: number): void {
    this.items.update((all) => all.filter((_, i) => i !== index));
  }

  protected async copy(link: string): Promise<void> {
    try {
      await navigator.clipboard.writeText(link);
      this.toasts.say($localize`The link is copied.`);
    } catch {
      this.toasts.say($localize`The browser does not let the link be copied. Select it and copy it yourself.`);
    }
  }

  protected save(): void {
    const document = this.desk.document();
    const task = this.task();
    if (document) downloadProject(document.song.title, task ? { ...document, task } : document);
  }

  protected copyLog(): Promise<void> {
    return this.copy(
      addressOf(writeParcel({ kind: 'log', title: this.title(), from: this.players.current().name, passes: this.passes() })),
    );
  }

  protected saveLog(): void {
    download(`${fileName(this.title())}-log.json`, writeLog(this.passes()), 'application/json');
  }

  private title(): string {
    return this.desk.arrangement()?.song.title ?? '';
  }
}

/** Where a parcel is opened: what stands behind the "#" is never sent. */
const addressOf = (letters: string): string => `${new URL('received', document.baseURI).href}#${letters}`;
