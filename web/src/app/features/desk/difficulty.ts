import { rangeOf } from '@joined-hands/core/song';
import type { Edit } from '@joined-hands/core/song';
import { LEVEL_LABELS } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { songDifficulty, type Ease, type LevelOption } from '@joined-hands/core/arrange';
import type { Load } from '@joined-hands/core/difficulty';
import { DeskStore } from '../../platform/state/desk.store';
import { Choice } from '../../ui/choice';
import { Pop } from '../../ui/pop';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { Workers } from '../../platform/workers/workers';
import { What } from '../../ui/words/what';
import { Words } from '../../platform/words';

type Reach = 'part' | 'song';

/** How hard the part or the song is and why, simpler versions in one press, and what would make it easier. */
@Component({
  selector: 'jh-difficulty',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choice, Pop, Pressed, Signs, What],
  templateUrl: './difficulty.html',
  styleUrl: './difficulty.less',
})
export class DifficultyPanel {
  private readonly desk = inject(DeskStore);
  private readonly workers = inject(Workers);
  protected readonly words = inject(Words);
  protected readonly reach = signal<Reach>('part');
  protected readonly versions = signal<readonly LevelOption[]>([]);
  protected readonly helps = signal<readonly Ease[] | null>(null);

  protected readonly part = this.desk.currentPart;
  protected readonly reaches = computed(() => [
    { id: 'part' as const, text: $localize`Part ${this.part()?.number ?? ''}` },
    { id: 'song' as const, text: $localize`Whole song` },
  ]);
  protected readonly song = computed(() => songDifficulty(this.desk.arrangement()?.parts ?? []));
  protected readonly value = computed(() => `${this.part()?.difficulty.score ?? 0}`);
  protected readonly isHardest = computed(() => this.part()?.number === this.desk.arrangement()?.hardest?.part);

  /** The loads of the part: each hand, and what the two ask of each other. */
  protected readonly loads = computed((): readonly { name: string; hand: string; load: Load }[] => {
    const difficulty = this.part()?.difficulty;
    if (!difficulty) return [];
    return [
      { name: $localize`Right hand`, hand: 'right', load: difficulty.right },
      { name: $localize`Left hand`, hand: 'left', load: difficulty.left },
      { name: $localize`Together`, hand: 'join', load: difficulty.together },
    ];
  });

  private readonly range = computed(() => {
    const part = this.part();
    return this.reach() === 'part' && part ? rangeOf(part) : null;
  });

  protected chooseReach(reach: Reach): void {
    this.reach.set(reach);
    void this.weigh();
  }

  /** Weighs every version and every change away from the page, since each is an arrangement of its own. */
  protected async weigh(open = true): Promise<void> {
    const document = this.desk.document();
    if (!open || !document) return;
    this.helps.set(null);
    const range = this.range();
    const eased = await this.workers.arranger.call('ease', document, range);
    if (range?.start !== this.range()?.start) return;
    const [versions, helps] = eased.ok ? eased.value : [[], []];
    this.versions.set(versions);
    this.helps.set(helps);
  }

  protected async choose(edit: Edit): Promise<void> {
    await this.desk.edit(edit);
    await this.weigh();
  }

  protected readonly levels = LEVEL_LABELS;

  protected reasons(load: Load): string {
    return load.reasons.map(this.words.say().fact).join(' · ') || $localize`nothing difficult in itself`;
  }

  protected chooseVersion({ level }: LevelOption): void {
    void this.choose({ code: 'edit.setting', range: this.range(), setting: 'level', value: level });
  }
}
