import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { CAUTION } from '@joined-hands/core/words';
import { Actions } from '../platform/state/actions';
import { SettingsStore } from '../platform/state/settings.store';
import { Check } from '../ui/check';
import { Choice } from '../ui/choice';
import { Fold } from '../ui/fold';
import { GLOSSARY } from '../ui/words/glossary';
import { NAMINGS } from '../platform/namings';

/** The keys of the screen that is open, the words that are explained, how notes are named, and whose work is in it. */
@Component({
  selector: 'jh-help',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Check, Choice, Fold],
  templateUrl: './help.html',
  styleUrl: './help.less',
})
export class Help {
  protected readonly actions = inject(Actions);
  protected readonly settings = inject(SettingsStore);
  protected readonly glossary = Object.values(GLOSSARY);
  protected readonly namings = NAMINGS;
  protected readonly caution = CAUTION;
}
