import { HARMONY_SIZE_LABELS, WALK_LABELS } from '@joined-hands/core/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal, type OnDestroy } from '@angular/core';
import { RouterLink } from '@angular/router';
import { proposedPlan, proposedPlanEdit } from '@joined-hands/core/arrange';
import { FREE, MOST_HARMONY, sketchOf, textureTitle, WRITTEN, type Sketch } from '@joined-hands/core/fills';
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
import { Player } from '../../platform/audio/player';
import { SettingsStore } from '../../platform/state/settings.store';
import { midiOf } from '@joined-hands/core/pitch';
import { barAt, barTicks, toSeconds } from '@joined-hands/core/time';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { Check } from '../../ui/check';
import { Slider } from '../../ui/slider';
import { Choice } from '../../ui/choice';
import { PatternSketch } from '../../ui/pattern-sketch';
import { Pop } from '../../ui/pop';
import { Pressed } from '../../ui/pressed';
import { Signs } from '../../ui/signs';
import { keywordsOf, texturesOf } from './textures';
import { Words } from '../../platform/words';

/** Milliseconds after which a texture that is pointed at is heard. */
const DWELL_MS = 350;

type Reach = 'part' | 'song';
type Density = '0' | '25' | '50' | '75';

/** What the left hand makes of its chords once they hold: a texture for the part or the song, or a plan for all parts. */
@Component({
  selector: 'jh-texture-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Check, Choice, PatternSketch, Pop, Pressed, RouterLink, Signs, Slider],
  templateUrl: './texture-panel.html',
  styleUrl: './texture-panel.less',
})
export class TexturePanel implements OnDestroy {
  private readonly words = inject(Words);
  protected readonly desk = inject(DeskStore);
  private readonly player = inject(Player);
  private readonly settings = inject(SettingsStore);
  protected readonly reach = signal<Reach>('part');
  protected readonly part = this.desk.currentPart;
  protected readonly mostHarmony = MOST_HARMONY;
  protected readonly energies = [1, 2, 3, 4, 5];
  protected readonly reaches = computed(() => [
    { id: 'part' as const, text: $localize`Part ${this.part()?.number ?? ''}` },
    { id: 'song' as const, text: $localize`Whole song` },
  ]);

  protected readonly densities: readonly { id: Density; text: string }[] = [
    { id: '0', text: $localize`none` },
    { id: '25', text: $localize`a quarter` },
    { id: '50', text: $localize`half` },
    { id: '75', text: $localize`most notes` },
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
  /** The chord over which the textures are drawn and heard: the one at work, or the first of the part. */
  private readonly chord = computed(() => this.desk.selectedChord() ?? this.part()?.chords.at(0) ?? null);
  private readonly meter = computed(() => {
    const [arrangement, part] = [this.desk.arrangement(), this.part()];
    return arrangement && part ? barAt(arrangement.bars, part.end - 1).meter : null;
  });
  protected readonly counts = computed(() => this.meter()?.beats ?? 4);
  /** The textures over that chord, by their names. */
  protected readonly sketches = computed((): ReadonlyMap<string, Sketch> => {
    const [chord, meter, document] = [this.chord(), this.meter(), this.desk.document()];
    if (!chord || !meter || !document) return new Map();
    const { hands, song } = document;
    return new Map(
      this.textures().flatMap((t) => {
        const sketch = sketchOf(t, meter, chord, hands, song.key);
        return sketch ? [[t.id, sketch] as const] : [];
      }),
    );
  });

  /** How far the hand leaps in a texture; nothing where all of it lies under the hand. */
  protected leapOf({ id }: Texture): string {
    const leap = this.sketches().get(id)?.leap ?? 0;
    return leap > 0 ? $localize`leaps ${this.words.say().interval(leap)}` : '';
  }

  protected labelOf({ title, energy }: Texture, leap: string): string {
    return leap ? $localize`${title}, energy ${energy} of 5, ${leap}` : $localize`${title}, energy ${energy} of 5`;
  }

  private pointed: ReturnType<typeof setTimeout> | undefined;

  ngOnDestroy(): void {
    clearTimeout(this.pointed);
  }

  /** A texture that a mouse rests on is heard. */
  protected pointAt(texture: Texture | null, event?: PointerEvent): void {
    clearTimeout(this.pointed);
    if (texture && event?.pointerType === 'mouse') this.pointed = setTimeout(() => this.hear(texture), DWELL_MS);
  }

  /** Plays a texture once over the chord at work. */
  protected hear({ id }: Texture): void {
    const [sketch, meter, arrangement, chord] = [this.sketches().get(id), this.meter(), this.desk.arrangement(), this.chord()];
    if (!sketch || !meter || !arrangement || !chord) return;
    const bar = toSeconds(barTicks(meter), (arrangement.song.tempo * this.settings.tempoPercent()) / 100);
    const sounds = sketch.steps.flatMap(({ from, until, pitches }) =>
      pitches.map((p) => ({ time: from * bar, duration: (until - from) * bar, midi: midiOf(p), loudness: 0.6 })),
    );
    const { at } = chord;
    void this.player.tryOut({ sounds, lead: 0, length: sketch.bars * bar, from: at, placeAt: () => at });
  }

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
    const title = textureTitle(this.current() ?? '', own);
    return title + (this.harmony().density > 0 ? $localize`, with harmony` : '');
  });

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
        name: $localize`Texture: ${texture.title}`,
        keywords: keywordsOf(texture),
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

  /** True where the music that was brought in has a left hand of its own. */
  protected readonly hasWritten = computed(() => this.desk.document()?.song.left !== undefined);
  protected readonly asWritten = computed(() => this.current() === WRITTEN);

  protected playAsWritten(): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'texture', value: WRITTEN });
  }

  /** Leaves the part to the player. */
  protected leaveFree(): void {
    void this.desk.edit({ code: 'edit.setting', range: this.range(), setting: 'texture', value: FREE });
  }
}
