import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output } from '@angular/core';
import type { Part, PartNote } from '@joined-hands/core/arrange';
import { isBlackKey, midiOf, nameOf, otherName } from '@joined-hands/core/pitch';
import { applyEdit, type Document, type NoteChange } from '@joined-hands/core/song';
import type { Selection } from '../../platform/state/desk.store';
import { Words } from '../../platform/words';
import { ChangeNote } from '../../ui/change-note';
import { JoinStrip, type StripMark } from '../../ui/join-strip/join-strip';
import { Signs } from '../../ui/signs';
import type { ReadSong } from './state';

/** A song as it was read, before it goes on the desk: its first parts, and its notes to be put right where they were heard. */
@Component({
  selector: 'jh-preview',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ChangeNote, JoinStrip, Signs],
  templateUrl: './preview.html',
  styleUrl: './preview.less',
})
export class Preview {
  readonly read = input.required<ReadSong>();
  readonly marks = input.required<readonly StripMark[]>();
  /** True where notes may be put right here: what was typed is put right where it was typed. */
  readonly heard = input(false);
  /** The song with a note put right, or as it was before. */
  readonly corrected = output<Document>();
  protected readonly words = inject(Words);
  /** What is counted beside a song is new with every reading; corrections stay with the same. */
  private readonly reading = computed(() => this.read().questions);
  /** The note in hand. */
  protected readonly picked = linkedSignal<unknown, Selection | null>({ source: this.reading, computation: () => null });
  /** The song before each correction, the latest last. */
  protected readonly before = linkedSignal<unknown, readonly Document[]>({ source: this.reading, computation: () => [] });

  protected pick(selection: Selection): void {
    this.picked.set(selection.kind === 'note' && this.heard() ? selection : null);
  }

  /** The note in hand where it is one of this part. */
  protected pickedIn({ melody }: Part): PartNote | null {
    const at = this.picked()?.at;
    return melody.find((n) => n.at === at) ?? null;
  }

  /** The other name of a note on a black key, or of one that is called by a sign. */
  protected otherNameOf({ pitch }: PartNote): string | null {
    const name = nameOf(pitch);
    return name.length > 1 || isBlackKey(midiOf(pitch)) ? otherName(name) : null;
  }

  /** Puts the note in hand right; it stays in hand where it goes. */
  protected correct({ change, at }: { change: NoteChange; at: number }): void {
    const note = this.picked();
    if (!note) return;
    this.put(applyEdit(this.read().document, { code: 'edit.note', at: note.at, change }));
    this.picked.set({ ...note, at });
  }

  protected respell(at: number, name: string): void {
    this.put(applyEdit(this.read().document, { code: 'edit.respell', at, name }));
  }

  protected undo(): void {
    const last = this.before().at(-1);
    if (!last) return;
    this.before.update((all) => all.slice(0, -1));
    this.corrected.emit(last);
  }

  private put(document: Document): void {
    this.before.update((all) => [...all, this.read().document]);
    this.corrected.emit(document);
  }
}
