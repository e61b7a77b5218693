import { BreakpointObserver } from '@angular/cdk/layout';
import { Injectable, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { map } from 'rxjs';

/** A phone held upright, and one that lies on its side. The styles name the same figures in ui/phone.less. */
const UPRIGHT = '(max-width: 640px)';
const TURNED = '(max-height: 480px) and (min-width: 641px)';

/** How much room there is for the application, as signals. */
@Injectable({ providedIn: 'root' })
export class Viewport {
  private readonly observer = inject(BreakpointObserver);
  /** A phone, upright or turned: panels become drawers, and what is not at work folds into menus. */
  readonly isPhone = this.matching([UPRIGHT, TURNED]);
  /** A phone that is held upright: little width, some height. */
  readonly isUpright = this.matching([UPRIGHT]);
  /** A phone that lies on its side: little height, some width. */
  readonly isTurned = this.matching([TURNED]);

  private matching(queries: string[]) {
    return toSignal(this.observer.observe(queries).pipe(map(({ matches }) => matches)), {
      initialValue: this.observer.isMatched(queries),
    });
  }
}
