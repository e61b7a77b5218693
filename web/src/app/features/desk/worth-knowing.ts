import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { fixAllCollisions, type Finding, type Fix } from '@joined-hands/core/arrange';
import { DeskStore } from '../../platform/state/desk.store';
import { Signs } from '../../ui/signs';
import { Words } from '../../platform/words';

const GRAVEST = ['fix', 'warn', 'note'];

/** What is worth knowing in the part, gravest first, each with its ways out: one press makes a change, undo takes it back. */
@Component({
  selector: 'jh-worth-knowing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Signs],
  template: `@if (findings().length > 0 || all()) {
    @if (!here()) {
      <h3 i18n>Worth knowing in this part</h3>
    }
    @if (all(); as fix) {
      <p class="all">
        <button i18n type="button" class="btn small main" data-testid="fix-all" (click)="apply(fix)">Clear all collisions</button>
        <small>{{ words.say().fact(fix.fact) }}</small>
      </p>
    }
    <ul>
      @for (finding of findings(); track $index) {
        <li [class]="finding.severity" data-testid="finding">
          <button type="button" class="message" (click)="show(finding)">
            <jh-signs [text]="words.say().fact(finding.fact)" />
            @if (finding.again; as times) {
              <small>{{ words.say().fact({ code: 'screen.more-places', places: times }) }}</small>
            }
          </button>
          @if (finding.fixes.length > 0) {
            <div class="fixes">
              @for (fix of finding.fixes; track $index) {
                @if (fix.action) {
                  <button type="button" class="fix" data-testid="fix" (click)="apply(fix)">
                    <jh-signs [text]="words.say().fact(fix.fact)" />
                  </button>
                } @else {
                  <span class="advice"><jh-signs [text]="words.say().fact(fix.fact)" /></span>
                }
              }
            </div>
          }
        </li>
      }
    </ul>
  }`,
  styleUrl: './worth-knowing.less',
})
export class WorthKnowing {
  /** Only what concerns the chosen chord, or all the rest. */
  readonly here = input(false);
  private readonly desk = inject(DeskStore);
  protected readonly words = inject(Words);

  protected readonly findings = computed(() => {
    const part = this.desk.currentPart();
    const at = this.desk.selection()?.at;
    const all = (this.desk.arrangement()?.findings ?? []).filter((f) => f.part === null || f.part === part?.number);
    const mine = all.filter((f) => (f.chordAt !== null && f.chordAt === at) === this.here());
    return mine.sort((a, b) => GRAVEST.indexOf(a.severity) - GRAVEST.indexOf(b.severity));
  });

  /** The cheapest set of changes that keeps the hands apart in the whole song; offered where two places or more collide. */
  protected readonly all = computed(() => {
    const document = this.desk.document();
    const arrangement = this.desk.arrangement();
    if (this.here() || !document || !arrangement) return null;
    const collisions = arrangement.findings.filter((f) => f.rule.startsWith('collision'));
    return collisions.length > 1 ? fixAllCollisions(document, arrangement) : null;
  });

  protected show(finding: Finding): void {
    if (finding.chordAt !== null) this.desk.select({ kind: 'chord', at: finding.chordAt });
  }

  protected apply({ action }: Fix): void {
    if (action) void this.desk.edit(action);
  }
}
