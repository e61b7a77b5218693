import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { DeskStore, type Unopened } from '../platform/state/desk.store';
import { downloadProject } from '../platform/download';

/** What stands on a screen whose song is not there, or cannot be opened, with the ways out. */
@Component({
  selector: 'jh-missing-song',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `@if (desk.unopened(); as song) {
      <div role="alert" data-testid="unopened">
        <h1 i18n>“{{ song.title }}” cannot be opened</h1>
        <p>{{ song.why }}</p>
        <p class="ways">
          <button i18n type="button" class="btn main" (click)="again(song)">Try again</button>
          @if (song.saved) {
            <button i18n type="button" class="btn" (click)="save(song)">Save as file</button>
          }
          <a i18n class="btn" routerLink="/shelf">Back to the shelf</a>
        </p>
      </div>
    } @else {
      <h1 i18n>This song is not on the shelf</h1>
      <p i18n>It may have been taken off, or it was kept in another browser.</p>
      <a i18n class="btn main" routerLink="/shelf">To the shelf</a>
    }`,
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
      overflow-wrap: anywhere;
    }
    p {
      max-width: 60ch;
      margin: 0 auto 8px;
      font-size: 16px;
    }
    .ways {
      display: flex;
      flex-wrap: wrap;
      justify-content: center;
      gap: 10px;
      margin-top: 22px;
    }
  `,
})
export class MissingSong {
  protected readonly desk = inject(DeskStore);

  protected again({ id }: Unopened): void {
    void this.desk.open(id);
  }

  /** The song as it is saved, whatever keeps it from being opened. */
  protected save({ title, saved }: Unopened): void {
    downloadProject(title, saved);
  }
}
