/** Something that can be found: an action, a screen or a song. */
export interface Entry {
  readonly name: string;
  /** What it is or leads to, or the key that does it. */
  readonly hint: string;
  readonly run: () => void;
}

/** Lower case without accents and signs of punctuation, for comparing what is typed with what things are called. */
const plain = (text: string): string => text.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase();

const wordsOf = (text: string): string[] => plain(text).match(/[\p{L}\p{N}♭♯]+/gu) ?? [];

/**
 * The entries that hold every word of what was typed, where the words begin: those whose name begins with it first, then
 * those whose name holds it, then those whose hint does; else in their own order. All of them where nothing is typed.
 */
export function search(entries: readonly Entry[], typed: string): readonly Entry[] {
  const words = wordsOf(typed);
  const found = entries.filter(({ name, hint }) => {
    const own = wordsOf(`${name} ${hint}`);
    return words.every((word) => own.some((o) => o.startsWith(word)));
  });
  const rank = ({ name }: Entry): number => {
    const own = wordsOf(name);
    if (words.every((word, i) => own[i]?.startsWith(word))) return 0;
    return words.every((word) => own.some((o) => o.startsWith(word))) ? 1 : 2;
  };
  return [...found].sort((a, b) => rank(a) - rank(b));
}
