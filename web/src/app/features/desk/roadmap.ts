import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { DeskStore } from '../../platform/state/desk.store';
import { sectionTitle } from '../../ui/section-title';

/** The way through the song: its parts by form letter, as wide as they are long, under the names of its sections. */
@Component({
  selector: 'jh-roadmap',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<nav i18n-aria-label aria-label="Form">
    @for (section of sections(); track section.from) {
      <div class="section" [style.flex-grow]="section.length" [class.on]="section.here">
        @if (named()) {
          <span class="name">{{ section.name ?? '' }}</span>
        }
        <div class="parts">
          @for (part of section.parts; track part.number) {
            <button
              type="button"
              [style.flex-grow]="part.end - part.start"
              [class.on]="part.number === desk.currentPart()?.number"
              [class.kin]="part.kin"
              (click)="desk.choosePart(part.number)"
              i18n-ariaLabel
              ariaLabel="Part {{ part.number }}, {{ part.label }}"
              [attr.aria-current]="part.number === desk.currentPart()?.number ? 'true' : null"
            >
              {{ part.label }}
            </button>
          }
        </div>
      </div>
    }
  </nav>`,
  styleUrl: './roadmap.less',
})
export class Roadmap {
  protected readonly desk = inject(DeskStore);
  protected readonly named = computed(() => (this.desk.arrangement()?.sections.length ?? 0) > 0);

  protected readonly sections = computed(() => {
    const arrangement = this.desk.arrangement();
    const here = this.desk.currentPart();
    if (!arrangement) return [];
    const letter = here?.label.replace(/′+$/, '');
    const parts = arrangement.parts.map((p) => ({
      number: p.number,
      label: p.label,
      start: p.start,
      end: p.end,
      kin: p.label.replace(/′+$/, '') === letter,
    }));
    const whole = { name: null, start: 0, end: arrangement.song.length, from: 1, to: parts.length };
    return (arrangement.sections.length > 0 ? arrangement.sections : [whole]).map((s) => ({
      name: sectionTitle(s.name),
      from: s.from,
      length: s.end - s.start,
      here: here !== null && here.number >= s.from && here.number <= s.to,
      parts: parts.slice(s.from - 1, s.to),
    }));
  });
}
