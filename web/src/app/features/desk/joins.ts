import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { joinsOf, type Join } from '@joined-hands/core/sheet';
import { togetherWords } from '@joined-hands/core/words';
import { DeskStore } from '../../platform/state/desk.store';
import { Signs } from '../../ui/signs';
import { Words } from '../../platform/words';

/** Where the hands meet in the part at work, in words: every chord with the note, the count and the syllable. */
@Component({
  selector: 'jh-joins',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Signs],
  template: `<ol i18n-aria-label aria-label="Where the hands meet">
    @for (point of points(); track point.at) {
      <li>
        <button
          type="button"
          data-testid="join"
          [class.on]="desk.selection()?.at === point.at"
          [class.apart]="point.apart"
          (click)="desk.select({ kind: 'chord', at: point.at })"
        >
          <b i18n>{point.bar, plural, =0 {pick-up} other {bar {{ point.bar }}}}</b>
          <jh-signs [text]="sentence(point)" />
        </button>
      </li>
    }
  </ol>`,
  styles: `
    ol {
      margin: 8px 12px 12px;
      padding: 0;
      list-style: none;
    }
    button {
      display: grid;
      grid-template-columns: 86px 1fr;
      width: 100%;
      border: 0;
      border-left: 4px solid var(--join);
      border-radius: 2px;
      background: none;
      padding: 5px 14px;
      margin-bottom: 6px;
      text-align: left;
      font-size: 18px;
      cursor: pointer;
    }
    b {
      font: 560 18px/1.4 var(--title);
    }
    button.apart {
      border-left-style: dashed;
    }
    button.on {
      background: var(--join-wash);
    }
    button:hover {
      background: var(--ruler);
    }
  `,
})
export class Joins {
  protected readonly desk = inject(DeskStore);
  private readonly words = inject(Words);
  protected readonly points = computed(() => {
    const part = this.desk.currentPart();
    return part ? joinsOf(part, this.desk.arrangement()?.bars ?? []) : [];
  });

  protected sentence({ point }: Join): string {
    return togetherWords(point, this.words.say());
  }
}
