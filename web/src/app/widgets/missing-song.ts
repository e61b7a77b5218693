import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

/** What stands on a screen whose song is not there, with the way back. */
@Component({
  selector: 'jh-missing-song',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `<h1>This song is not on the shelf</h1>
    <p>It may have been taken off, or it was kept in another browser.</p>
    <a class="btn main" routerLink="/shelf">To the shelf</a>`,
  styles: `
    :host {
      display: block;
      padding: 80px 28px;
      text-align: center;
      color: var(--soft);
    }
    h1 {
      font-size: 34px;
      margin-bottom: 8px;
    }
  `,
})
export class MissingSong {}
