import { DestroyRef, Injectable, computed, inject, signal } from '@angular/core';
import { isOwnKey, isTaken, isTyping } from '../keys';

/** Something that can be done on the screen that is open, by a key or by its name. */
export interface Action {
  /** As the list of shortcuts and the finder show it. */
  readonly name: string;
  /** What else it leads to, in words that one may look for it by. */
  readonly keywords?: string;
  /** The key presses that do it, as KeyboardEvent.key; with "Ctrl+" before it for those with the control or command key. */
  readonly keys?: readonly string[];
  /** What is done; null for keys that go elsewhere and are only told of in the list. */
  readonly run: (() => void) | null;
}

/** Keys by the signs on them. */
const SIGNS: Readonly<Record<string, string>> = { ' ': 'Space', ArrowLeft: '←', ArrowRight: '→', ArrowUp: '↑', ArrowDown: '↓' };

/** The key of an action as it is shown, the first where there are several; nothing for one without. */
export function keyOf({ keys }: Action): string {
  const first = keys?.[0] ?? '';
  if (SIGNS[first]) return SIGNS[first];
  return first.startsWith('Ctrl+') || first.length === 1
    ? first.toUpperCase().replace('CTRL', 'Ctrl').replace('SHIFT', 'Shift').replaceAll('+', ' ')
    : first;
}

/** How a key press is written in an action. */
function written(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  if (!event.ctrlKey && !event.metaKey) return key;
  return `Ctrl+${event.shiftKey ? 'Shift+' : ''}${key}`;
}

/** What can be done now: every screen and panel offers its own, and one rule says which key does what. */
@Injectable({ providedIn: 'root' })
export class Actions {
  private readonly offers = signal<readonly (() => readonly Action[])[]>([]);
  /** What the screens offer, those of the outermost last. */
  readonly all = computed(() =>
    this.offers()
      .toReversed()
      .flatMap((offer) => offer()),
  );
  /** The actions that have a key, each with its keys in words. */
  readonly shortcuts = computed(() => this.all().flatMap((a) => (a.keys ? [{ name: a.name, key: keyOf(a) }] : [])));

  /** Offers actions for as long as the component lives that calls this while it is made. */
  register(actions: () => readonly Action[]): void {
    this.offers.update((all) => [...all, actions]);
    inject(DestroyRef).onDestroy(() => this.offers.update((all) => all.filter((o) => o !== actions)));
  }

  /** Does what a key stands for here; a field, a panel or a button with the focus keeps its own keys. */
  press(event: KeyboardEvent): void {
    const combined = event.ctrlKey || event.metaKey;
    if (event.defaultPrevented || event.altKey || (combined ? isTyping(event) : isTaken(event))) return;
    if ((event.key === ' ' || event.key === 'Enter') && isOwnKey(event)) return;
    const key = written(event);
    const found = this.all().find((a) => a.run && a.keys?.includes(key));
    if (!found?.run) return;
    event.preventDefault();
    found.run();
  }
}
