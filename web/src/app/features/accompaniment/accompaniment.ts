import {
  ChangeDetectionStrategy,
  Component,
  OnDestroy,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  comesAgain,
  firstAndSecondEndings,
  louderEachTime,
  proposedPlan,
  type Part,
  proposedPlanEdit,
} from '@joined-hands/core/arrange';
import { FREE, isPlain, nearestTo, patternFor, TEXTURES, textureNamed, WRITTEN } from '@joined-hands/core/fills';
import {
  alternateTextures,
  ENDINGS,
  LOUDNESSES,
  settingAt,
  type Ending,
  type Loudness,
  type Texture,
  type Edit,
  rangeOf,
} from '@joined-hands/core/song';
import { barAt } from '@joined-hands/core/time';
import { partTitle } from '@joined-hands/core/words';
import { asArranged, scheduleSounds } from '../../platform/audio/schedule';
import { Player } from '../../platform/audio/player';
import { ENDING_LABELS } from '@joined-hands/core/words';
import { sectionTitle } from '../../ui/section-title';
import { MissingSong } from '../../ui/missing-song';
import { openSong } from '../../platform/state/open-song';
import { Actions } from '../../platform/state/actions';
import { DeskStore } from '../../platform/state/desk.store';
import { SettingsStore } from '../../platform/state/settings.store';
import { Energy } from '../../ui/energy';
import { Dropdown, type Option } from '../../ui/dropdown';
import { What } from '../../ui/words/what';

/** A section in the plan: its name, the parts it has, and its energy and texture where all of them share it. */
interface SectionRow {
  readonly name: string | null;
  readonly from: number;
  readonly to: number;
}

/** One part in the plan. */
interface PartRow {
  readonly part: Part;
  readonly title: string;
  /** The section that begins here, or null. */
  readonly section: SectionRow | null;
  readonly texture: string;
  readonly energy: number;
  readonly textures: readonly Texture[];
  /** What can be chosen: the textures by their titles, and to play freely. */
  readonly choices: readonly Option<string>[];
  readonly proposed: Texture | null;
  readonly loudness: Loudness;
  readonly ending: Ending;
}

/** The plan of the song: how lively each part is, with which texture, how loud, and how it ends. */
@Component({
  selector: 'jh-plan',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MissingSong, Energy, Dropdown, RouterLink, What],
  templateUrl: './accompaniment.html',
  styleUrl: './accompaniment.less',
})
export class AccompanimentScreen implements OnDestroy {
  readonly id = input.required<string>();
  protected readonly desk = inject(DeskStore);
  protected readonly player = inject(Player);
  private readonly settings = inject(SettingsStore);
  protected readonly free = FREE;
  protected readonly loudnesses = LOUDNESSES.map((id) => ({ id, text: id }));
  protected readonly endings = ENDINGS.map((id) => ({ id, text: ENDING_LABELS[id] }));
  /** The part that is heard, by number. */
  protected readonly hearing = signal<number | null>(null);
  protected readonly again = computed(() => comesAgain(this.desk.arrangement()?.parts ?? []));

  protected readonly rows = computed((): PartRow[] => {
    const doc = this.desk.document();
    const arrangement = this.desk.arrangement();
    if (!doc || !arrangement) return [];
    const { parts, bars, sections } = arrangement;
    const proposed = proposedPlan(arrangement);
    const bySection = new Map(sections.map((s) => [s.start, { name: sectionTitle(s.name), from: s.from, to: s.to }]));
    return parts.map((part, i) => {
      const texture = settingAt(doc, part.start, 'texture');
      const { meter } = barAt(bars, part.end - 1);
      const textures = [...doc.choices.textures, ...TEXTURES].filter((t) => patternFor(t, meter));
      return {
        part,
        title: partTitle(part),
        section: bySection.get(part.start) ?? null,
        texture,
        energy: textureNamed(texture, doc.choices.textures)?.energy ?? 0,
        textures,
        choices: [
          ...(doc.song.left ? [{ id: WRITTEN, text: $localize`as written` }] : []),
          ...titled(textures),
          { id: FREE, text: $localize`freely, in your own way` },
        ],
        proposed: proposed[i],
        loudness: settingAt(doc, part.start, 'loudness'),
        ending: settingAt(doc, part.start, 'ending'),
      };
    });
  });

  protected hearLabel({ part }: PartRow): string {
    return this.hearing() === part.number ? $localize`Stop part ${part.number}` : $localize`Hear part ${part.number}`;
  }

  /** Textures that can take turns anywhere in the song: those for its first meter. */
  protected readonly figures = computed(() => titled(this.rows()[0]?.textures ?? []));
  /** The two that take turns, and the part where they do; 0 is the whole song. */
  protected readonly first = linkedSignal(() => this.figures()[0]?.id ?? '');
  protected readonly second = linkedSignal(() => this.figures()[1]?.id ?? '');
  protected readonly where = signal(0);
  protected readonly places = computed(() => [
    { id: 0, text: $localize`the whole song` },
    ...this.rows().map(({ part }) => ({ id: part.number, text: $localize`part ${part.number}` })),
  ]);

  constructor() {
    openSong(this.id);
    inject(Actions).register(() => [
      { name: $localize`Suggest one for every part`, run: () => this.propose() },
      { name: $localize`Plain chords everywhere`, run: () => this.plain() },
    ]);
    effect(() => {
      if (this.player.state() === 'silent') untracked(() => this.hearing.set(null));
    });
  }

  ngOnDestroy(): void {
    this.player.stop();
  }

  private setTexture(part: Part, texture: Texture | typeof FREE | typeof WRITTEN): void {
    const [value, title] = typeof texture === 'string' ? [texture, undefined] : [texture.id, texture.title];
    void this.desk.edit({ code: 'edit.setting', range: rangeOf(part), setting: 'texture', value, title });
  }

  protected chooseTexture(row: PartRow, id: string): void {
    this.setTexture(row.part, row.textures.find((t) => t.id === id) ?? (id === WRITTEN ? WRITTEN : FREE));
  }

  /** The texture of an energy; the one that stands there where it has it already. */
  protected chooseEnergy(row: PartRow, energy: number): void {
    const found = this.ofEnergy(row, energy);
    if (found && row.energy !== energy) this.setTexture(row.part, found);
  }

  /** Energy of a section: that of its parts where they share it, else 0. */
  protected energyOf({ from, to }: SectionRow): number {
    const energies = new Set(
      this.rows()
        .slice(from - 1, to)
        .map((r) => r.energy),
    );
    return energies.size === 1 ? [...energies][0] : 0;
  }

  /** One texture of an energy for every part of a section. */
  protected chooseForSection({ from, to, name }: SectionRow, energy: number): void {
    const rows = this.rows().slice(from - 1, to);
    const edits = rows.flatMap((row): Edit[] => {
      const texture = this.ofEnergy(row, energy);
      const range = rangeOf(row.part);
      return texture ? [{ code: 'edit.setting', range, setting: 'texture', value: texture.id }] : [];
    });
    void this.desk.edit({ code: 'edit.several', as: { kind: 'section', energy, name }, edits });
  }

  /** The texture that an energy stands for in a part: the pianist's own or plain chords first, then what the plan would take, which knows the tempo. */
  private ofEnergy({ part, textures }: PartRow, energy: number): Texture | null {
    const { bars = [], song } = this.desk.arrangement() ?? {};
    const own = this.desk.document()?.choices.textures ?? [];
    const plain = textures.find((t) => t.energy === energy && (own.includes(t) || isPlain(t.id)));
    if (plain) return plain;
    return nearestTo(energy, barAt(bars, part.end - 1).meter, song?.tempo);
  }

  protected chooseLoudness({ part }: PartRow, value: Loudness): void {
    void this.desk.edit({ code: 'edit.setting', range: rangeOf(part), setting: 'loudness', value });
  }

  protected chooseEnding({ part }: PartRow, value: Ending): void {
    void this.desk.edit({ code: 'edit.setting', range: rangeOf(part), setting: 'ending', value });
  }

  protected propose(): void {
    const arrangement = this.desk.arrangement();
    if (arrangement) void this.desk.edit(proposedPlanEdit(arrangement));
  }

  protected plain(): void {
    void this.desk.edit({ code: 'edit.setting', range: null, setting: 'texture', value: 'block' });
  }

  protected eachTime(way: 'louder' | 'softer'): void {
    const [document, parts] = [this.desk.document(), this.desk.arrangement()?.parts ?? []];
    void this.desk.edit(document && louderEachTime(document, parts, way));
  }

  protected byTurns(): void {
    void this.desk.edit(firstAndSecondEndings(this.desk.arrangement()?.parts ?? []));
  }

  /** Alternate two textures through the whole song, or from one part on. */
  protected alternate(): void {
    const arrangement = this.desk.arrangement();
    if (!arrangement) return;
    const range = arrangement.parts.find((p) => p.number === this.where()) ?? { start: 0, end: arrangement.song.length };
    void this.desk.edit(alternateTextures(rangeOf(range), [this.first(), this.second()], arrangement.bars));
  }

  protected hear({ part }: PartRow): void {
    const arrangement = this.desk.arrangement();
    if (this.hearing() === part.number || !arrangement) return this.player.stop();
    const options = asArranged(arrangement, this.settings.tempoPercent());
    void this.player.play(scheduleSounds(arrangement, part, { ...options, scope: 'part' }));
    this.hearing.set(part.number);
  }
}

const titled = (textures: readonly Texture[]): Option<string>[] => textures.map(({ id, title }) => ({ id, text: title }));
