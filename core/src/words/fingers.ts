/** Fingers of one hand at once, the tune's first: "4-2-1"; nothing where none are known. */
export function fingersInShort({
  finger,
  beside,
}: {
  readonly finger: number | null;
  readonly beside: readonly { readonly finger: number | null }[];
}): string {
  return [finger, ...beside.map((b) => b.finger)].filter((f) => f !== null).join('-');
}
