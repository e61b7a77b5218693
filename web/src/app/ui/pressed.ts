import { Directive, input } from '@angular/core';

/** A button that can stay pressed: whether it is, is told to the eye and to a screen reader at once. */
@Directive({
  selector: 'button[jhPressed]',
  host: { type: 'button', '[class.on]': 'jhPressed()', '[attr.aria-pressed]': 'jhPressed()' },
})
export class Pressed {
  readonly jhPressed = input.required<boolean>();
}
