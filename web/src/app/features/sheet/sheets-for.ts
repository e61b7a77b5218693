import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import type { Arrangement } from '@joined-hands/core/arrange';
import type { Document } from '@joined-hands/core/song';
import { wordsWith, type NoteNames } from '@joined-hands/core/words';
import { latestWins } from '../../platform/latest';
import { DeskStore } from '../../platform/state/desk.store';
import { handsIn } from '../../platform/state/player';
import { nameOfPlayer, PlayersStore } from '../../platform/state/players.store';
import { SettingsStore } from '../../platform/state/settings.store';
import type { Answer } from '../../platform/workers/worker-client';
import { TROUBLE, Workers } from '../../platform/workers/workers';

/** Paper in tenths of a millimetre. */
const PAPERS = { a4: { width: 2100, height: 2970 }, letter: { width: 2159, height: 2794 } } as const;

/** A song as somebody plays it, for a sheet. */
interface SheetFor {
  /** Whose it is; null where it is for whoever plays now and needs no name. */
  readonly name: string | null;
  readonly document: Document;
  readonly names: NoteNames;
  readonly exactNames: boolean;
}

/** An engraved page, and whose it is. */
interface Engraved {
  readonly html: SafeHtml;
  readonly name: string | null;
}

/** The sheets of a song: for whoever plays now, or for everyone in one go. */
@Injectable()
export class SheetsFor {
  private readonly desk = inject(DeskStore);
  private readonly players = inject(PlayersStore);
  private readonly settings = inject(SettingsStore);
  private readonly workers = inject(Workers);
  private readonly sanitizer = inject(DomSanitizer);
  /** Whether everyone's are laid, and whether as staves. */
  readonly everyone = signal(false);
  readonly staff = signal(true);
  readonly pages = signal<readonly Engraved[]>([]);
  /** How many engraved pages there will be, as far as is known. */
  readonly expected = signal(0);
  readonly trouble = signal<string | null>(null);
  private readonly arranged = signal<readonly Arrangement[]>([]);
  private readonly begin = latestWins();
  private making: Promise<void> = Promise.resolve();

  private readonly wanted = computed((): readonly SheetFor[] => {
    const [document, song] = [this.desk.document(), this.desk.id()];
    if (!document) return [];
    const [noteNames, exactNames] = [this.settings.noteNames(), this.settings.exactNames()];
    if (!this.everyone()) return [{ name: null, document, names: noteNames, exactNames }];
    const now = this.players.playing();
    return this.players.here().map((player) => {
      const wishes = player.id === now ? null : player.wishes;
      return {
        name: nameOfPlayer(player),
        document: { ...document, hands: handsIn(player, song) },
        names: wishes?.noteNames ?? noteNames,
        exactNames: wishes?.exactNames ?? exactNames,
      };
    });
  });

  /** The song as each has it, for sheets in letters and words; the one on the desk is there already. */
  readonly papers = computed(() => {
    const own = this.desk.arrangement();
    return this.wanted().flatMap(({ name, names, exactNames }, i) => {
      const arrangement = this.everyone() ? this.arranged()[i] : own;
      return arrangement ? [{ name, arrangement, speech: wordsWith(names, exactNames) }] : [];
    });
  });

  constructor() {
    effect(() => {
      const [wanted, staff, paper] = [this.wanted(), this.staff(), PAPERS[this.settings.paper()]];
      untracked(() => {
        this.making = staff ? this.engrave(wanted, paper) : this.arrange(wanted);
      });
    });
  }

  /** Resolves when everything that is to be printed is there. */
  made(): Promise<void> {
    return this.making;
  }

  private async arrange(wanted: readonly SheetFor[]): Promise<void> {
    const isLatest = this.begin();
    this.trouble.set(null);
    if (!this.everyone()) return;
    this.arranged.set([]);
    for (const { document } of wanted) {
      const made = await this.workers.arranger.call('arrange', document);
      if (!isLatest()) return;
      if (!made.ok) {
        this.trouble.set($localize`The sheets could not be laid: ${TROUBLE[made.trouble]}. Try again.`);
        return;
      }
      this.arranged.update((all) => [...all, made.value]);
    }
  }

  private layOut(xml: string, paper: (typeof PAPERS)['a4' | 'letter']): Promise<Answer<{ pages: number; first: string }>> {
    return this.workers.engraver.call('lay', xml, paper);
  }

  private async engrave(wanted: readonly SheetFor[], paper: (typeof PAPERS)['a4' | 'letter']): Promise<void> {
    const isLatest = this.begin();
    const failed = (trouble: keyof typeof TROUBLE): void =>
      this.trouble.set(
        $localize`The staff could not be engraved: ${TROUBLE[trouble]}. The letter chart and the exports still work.`,
      );
    const pages: Engraved[] = [];
    this.expected.set(0);
    // The engraver's SVG is made here from the song's own notes and escaped text.
    const show = (svg: string, name: string | null): void => {
      pages.push({ html: this.sanitizer.bypassSecurityTrustHtml(svg), name });
      this.pages.set([...pages]);
    };
    for (const { name, document } of wanted) {
      const score = await this.workers.arranger.call('page', document);
      // The first page of a long score is there before the whole is laid out.
      const start = score.ok && score.value.start !== null ? await this.layOut(score.value.start, paper) : null;
      if (!isLatest()) return;
      const ahead = start?.ok === true && start.value.pages > 1;
      if (ahead) show(start.value.first, name);
      const laid = score.ok ? await this.layOut(score.value.whole, paper) : score;
      if (!isLatest()) return;
      if (!laid.ok) {
        failed(laid.trouble);
        return;
      }
      this.trouble.set(null);
      if (!ahead) show(laid.value.first, name);
      this.expected.set(pages.length + laid.value.pages - 1);
      for (let number = 2; number <= laid.value.pages; number++) {
        const page = await this.workers.engraver.call('page', number);
        if (!isLatest()) return;
        if (!page.ok) {
          failed(page.trouble);
          return;
        }
        show(page.value, name);
      }
    }
  }
}
