import { ChangeDetectionStrategy, Component, ElementRef, effect, inject, input } from '@angular/core';
import {
  DownOutline,
  EllipsisOutline,
  LeftOutline,
  MinusOutline,
  MoonOutline,
  PlusOutline,
  QuestionOutline,
  RedoOutline,
  RightOutline,
  SearchOutline,
  SunOutline,
  UndoOutline,
} from '@ant-design/icons-angular/icons';

/** The icons of the component library that the page uses. */
const ICONS = {
  down: DownOutline,
  ellipsis: EllipsisOutline,
  left: LeftOutline,
  minus: MinusOutline,
  moon: MoonOutline,
  plus: PlusOutline,
  question: QuestionOutline,
  redo: RedoOutline,
  right: RightOutline,
  search: SearchOutline,
  sun: SunOutline,
  undo: UndoOutline,
} as const;

export type IconName = keyof typeof ICONS;

/**
 * An icon of the component library, for the eye alone: the button around it has the name. The library's own element would bring its
 * way of fetching icons, 20 kB of the first script, to draw what is here already.
 */
@Component({
  selector: 'jh-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
  styles: `
    :host {
      display: inline-flex;
      flex: none;
      font-size: var(--icon, 18px);
    }
    /* Beside a word: the button opens something. */
    :host(.opens) {
      color: var(--soft);
      font-size: 0.75em;
    }
  `,
  host: { 'aria-hidden': 'true' },
})
export class Icon {
  readonly name = input.required<IconName>();

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    effect(() => {
      const drawing = new DOMParser().parseFromString(ICONS[this.name()].icon, 'text/html').body.firstElementChild;
      if (!drawing) return;
      drawing.setAttribute('fill', 'currentColor');
      drawing.setAttribute('width', '1em');
      drawing.setAttribute('height', '1em');
      host.replaceChildren(document.importNode(drawing, true));
    });
  }
}
