import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Microphone } from '../platform/audio/microphone';

/** The sign that the microphone is live, with how loud it is; it stands wherever something is heard. */
@Component({
  selector: 'jh-live',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span i18n class="words">The microphone is on</span>
    <meter min="0" max="1" [value]="microphone.level()" i18n-aria-label aria-label="How loud it is"></meter>
  `,
  styleUrl: './live.less',
})
export class Live {
  protected readonly microphone = inject(Microphone);
}
