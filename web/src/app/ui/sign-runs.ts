/** A run of text that is plain or a musical sign. */
export interface SignRun {
  readonly text: string;
  readonly sign: boolean;
}

/** Turns the b and # of note names and chord symbols into runs of musical signs: "Bb7b9" to B ♭ 7 ♭ 9. */
export function signRuns(text: string): SignRun[] {
  const runs: SignRun[] = [];
  const push = (piece: string, sign: boolean) => {
    const last = runs.at(-1);
    if (last && last.sign === sign) runs[runs.length - 1] = { text: last.text + piece, sign };
    else if (piece) runs.push({ text: piece, sign });
  };
  let from = 0;
  for (const match of text.matchAll(/(?<=\b[A-G][b#]?)[b#](?=(?:maj|min|m|dim|aug|sus|add|alt)?(?![a-z]))|[b#](?=\d)|[♭♯]/g)) {
    push(text.slice(from, match.index), false);
    push(match[0] === 'b' || match[0] === '♭' ? '♭' : '♯', true);
    from = match.index + 1;
  }
  push(text.slice(from), false);
  return runs;
}
