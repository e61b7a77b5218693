import { HARMONY_SIZE_LABELS, WALK_LABELS } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { proposedPlan, proposedPlanEdit } from '@joined-hands/core/arrange';
import { FREE, MOST_HARMONY, textureNamed } from '@joined-hands/core/fills';
import {
  HARMONY_SIZES,
  WALKS,
  settingAt,
  type Harmony,
  type TickRange,
  type Texture,
  type Walk,
  rangeOf,
} from '@joined-hands/core/song';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { Check } from '../../ui/check';
import { Slider } from '../../ui/slider';
import { Choice } from '../../ui/choice';
import { Pop } from '../../ui/pop';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { keywordsOf, texturesOf } from './textures';
import { Words } from '../../platform/words';

type Reach = 'part' | 'song';
type Density = '0' | '25' | '50' | '75';

/** What the left hand makes of its chords once they hold: a texture for the part or the song, or a plan for all parts. */
@Component({
  selector: 'jh-texture-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Check, Choice, Pop, Pressed, RouterLink, Signs, Slider],
  templateUrl: './texture-panel.html',
  styleUrl: './texture-panel.less',
})
export class TexturePanel {
  private readonly words = inject(Words);
  protected readonly desk = inject(DeskStore);
  protected readonly reach = signal<Reach>('part');
  protected readonly part = this.desk.currentPart;
  protected readonly mostHarmony = MOST_HARMONY;
  protected readonly energies = [1, 2, 3, 4, 5];
  protected readonly reaches = computed(() => [
    { id: 'part' as const, text: `Part ${this.part()?.number ?? ''}` },
    { id: 'song' as const, text: 'Whole song' },
  ]);

  protected readonly densities: readonly { id: Density; text: string }[] = [
    { id: '0', text: 'none' },
    { id: '25', text: 'a quarter' },
    { id: '50', text: 'half' },
    { id: '75', text: 'most notes' },
  ];
  protected readonly sizes = HARMONY_SIZES.map((id) => ({ id, text: HARMONY_SIZE_LABELS[id] }));
  protected readonly harmony = computed((): Harmony => {
    const doc = this.desk.document();
    const part = this.part();
    return doc && part ? settingAt(doc, part.start, 'harmony') : { density: 0, size: 'one' };
  });
  protected readonly density = computed(() => `${this.harmony().density}` as Density);

  protected readonly textures = computed(() => {
    const [document, arrangement, part] = [this.desk.document(), this.desk.arrangement(), this.part()];
    return document && arrangement && part ? texturesOf(document, arrangement, part) : [];
  });
  protected readonly free = computed(() => this.current() === FREE);
  /** What is proposed for the part, where it is left free. */
  protected readonly proposed = computed(() => {
    const arrangement = this.desk.arrangement();
    const part = this.part();
    return arrangement && part ? (proposedPlan(arrangement)[part.number - 1]?.title ?? '') : '';
  });
  protected readonly walks = WALKS.map((id) => ({ id, text: WALK_LABELS[id] }));
  protected readonly walk = computed((): Walk => {
    const doc = this.desk.document();
    const part = this.part();
    return doc && part ? settingAt(doc, part.start, 'walk') : 'none';
  });
  protected readonly current = computed(() => {
    const doc = this.desk.document();
    const part = this.part();
    return doc && part ? settingAt(doc, part.start, 'texture') : null;
  });
  protected readonly value = computed(() => {
    const own = this.desk.document()?.choices.textures ?? [];
    const title = this.free() ? 'free' : (textureNamed(this.current() ?? '', own)?.title ?? '');
    return title + (this.harmony().density > 0 ? ', with harmony' : '');
  });

  /** How the texture had to bend in this part, each reason once. */
  /** Where the texture gives way in this part: a few sentences. */
  protected readonly bends = computed(() => {
    const bends = this.part()?.chords.flatMap((c) => c.dressed?.bends ?? []) ?? [];
    return [...new Set(bends.map(this.words.say().fact))].slice(0, 5);
  });

  protected readonly pedal = computed(() => {
    const doc = this.desk.document();
    const part = this.part();
    return doc !== null && part !== null && settingAt(doc, part.start, 'pedal');
  });

  protected choosePedal(pedal: boolean): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'pedal', value: pedal });
  }

  private range(): TickRange | null {
    const part = this.part();
    return this.reach() === 'part' && part ? rangeOf(part) : null;
  }

  protected chooseDensity(density: Density): void {
    this.chooseHarmony({ density: Number(density) });
  }

  protected chooseHarmony(change: Partial<Harmony>): void {
    const value = { ...this.harmony(), ...change };
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'harmony', value });
  }

  constructor() {
    inject(Actions).register(() =>
      this.textures().map((texture) => ({
        name: `Texture: ${texture.title}`,
        keywords: keywordsOf(texture.id),
        run: () => this.choose(texture),
      })),
    );
  }

  protected choose({ id, title }: Texture): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'texture', value: id, title });
  }

  /** A plan for all parts: quiet, then livelier, then quiet again. */
  protected propose(): void {
    const arrangement = this.desk.arrangement();
    if (arrangement) void this.desk.edit(proposedPlanEdit(arrangement));
  }

  protected chooseWalk(walk: Walk): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'walk', value: walk });
  }

  /** Leaves the part to the player. */
  protected leaveFree(): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'texture', value: FREE });
  }
}
