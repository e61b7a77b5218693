import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { main } from './command.js';

const root = fileURLToPath(new URL('../..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'arrange-'));
afterAll(() => rmSync(folder, { recursive: true }));

const waltz = join(root, 'demo', 'lamps-across-the-sound.letters');
const file = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
/** The command as a process of its own. */
const spawned = (...args: string[]) => {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['--import', join(root, 'node_modules/tsx/dist/loader.mjs'), join(root, 'cli/src/main.ts'), ...args],
    { encoding: 'utf8' },
  );
  return { status, stdout, stderr: stderr.trim() };
};

/** The same inside this process, with what it writes. */
const arrange = (...args: string[]) => {
  const told = { out: '', err: '' };
  const listen = (stream: 'out' | 'err') => (text: string | Uint8Array) => {
    told[stream] += typeof text === 'string' ? text : new TextDecoder().decode(text);
    return true;
  };
  const out = vi.spyOn(process.stdout, 'write').mockImplementation(listen('out'));
  const err = vi.spyOn(process.stderr, 'write').mockImplementation(listen('err'));
  try {
    const status = main(args);
    return { status, stdout: told.out, stderr: told.err.trim() };
  } finally {
    out.mockRestore();
    err.mockRestore();
  }
};

describe('the arrange command', () => {
  it('writes every output whole and answers 0', () => {
    const kinds = ['json', 'musicxml', 'midi', 'abc', 'chordpro', 'chart', 'lesson', 'project'];
    const done = spawned(waltz, ...kinds.flatMap((k) => [`--${k}`, join(folder, `out.${k}`)]));
    expect([done.status, done.stdout, done.stderr]).toEqual([0, '', '']);
    const told = JSON.parse(readFileSync(join(folder, 'out.json'), 'utf8')) as { parts: unknown[]; song: { bars: number } };
    expect([told.parts.length, told.song.bars]).toEqual([5, 20]);
    expect(readFileSync(join(folder, 'out.midi')).subarray(0, 4).toString()).toBe('MThd');
    expect(readdirSync(folder).filter((f) => f.endsWith('.part'))).toEqual([]);
    const again = arrange(join(folder, 'out.project'), '--format', 'project', '--json', '-');
    expect(JSON.parse(again.stdout)).toEqual(told);
  });

  it.each([
    [
      'an impossible pitch',
      'a.musicxml',
      '<score-partwise><part id="P1"><measure number="1"><note><pitch><step>C</step><alter>9</alter><octave>5</octave></pitch><duration>4</duration></note></measure></part></score-partwise>',
    ],
    [
      'a chord without end',
      'b.musicxml',
      '<score-partwise><part id="P1"><measure number="1"><harmony><root><root-step>C</root-step><root-alter>1e9</root-alter></root></harmony><note><pitch><step>C</step><octave>5</octave></pitch><duration>4</duration></note></measure></part></score-partwise>',
    ],
    [
      'a song without end',
      'c.json',
      '{"kind":"joined-hands","version":4,"song":{"title":"x","length":1e12},"choices":{},"hands":{}}',
    ],
    ['grace notes without end', 'd.abc', `X:1\nL:1/4\nK:C\nCDEF|${'{'.repeat(3000)}`],
    ['a damaged archive', 'e.mxl', 'PK\u0003\u0004 and no more'],
  ])('answers 3 with one line that names the file and the cause: %s', (_, name, content) => {
    const done = arrange(file(name, content));
    expect([done.status, done.stdout]).toEqual([3, '']);
    expect(done.stderr).toMatch(new RegExp(`^${name.replace('.', '\\.')}: [^\n]{20,}\\.$`));
  });

  it('takes a MIDI file, finds its tune and names its chords', () => {
    const midi = join(folder, 'waltz.mid');
    expect(arrange(waltz, '--midi', midi).status).toBe(0);
    const told = JSON.parse(arrange(midi, '--json', '-').stdout) as {
      song: { melodyNotes: number; time: string; pickup: number };
    };
    expect(told.song).toMatchObject({ melodyNotes: 44, time: '3/4', pickup: 1 });
  });

  it('obeys hands, keys and transposition', () => {
    const done = arrange(waltz, '--hands', 'child', '--keys', '49', '--transpose', 'D minor', '--json', '-');
    const told = JSON.parse(done.stdout) as {
      song: { key: string };
      parts: { chords: { symbol: string; pitches: string[] }[] }[];
    };
    expect(told.song.key).toBe('D minor');
    expect(told.parts[0].chords[0].symbol).toBe('Dm');
  });

  it('suggests chords in place of the file’s, from the vocabulary asked for and in the key asked for', () => {
    interface Told {
      song: { chordsGiven: boolean; key: string };
      parts: { chords: { symbol: string; otherChords: unknown[] }[] }[];
    }
    const told = (...options: string[]) => JSON.parse(arrange(waltz, ...options, '--json', '-').stdout) as Told;
    const row = (t: Told) => t.parts.flatMap((p) => p.chords.map((c) => c.symbol));
    expect(told().song.chordsGiven).toBe(true);
    const plain = told('--strip-chords');
    expect(plain.song.chordsGiven).toBe(false);
    expect(row(plain).every((c) => /^[A-G]b?m?$/.test(c))).toBe(true);
    expect(plain.parts[0].chords[0].otherChords).toHaveLength(3);
    const sevenths = told('--strip-chords', '--suggest', 'sevenths', '--transpose', 'A minor');
    expect(sevenths.song.key).toBe('A minor');
    expect(row(sevenths).at(-1)).toBe('Am');
    expect(row(sevenths)).toContain('E7');
  });

  it.each(['close', 'root', 'two-note', 'shell', 'fifths', 'open', 'octave', 'single-bass', 'under-melody'])(
    'voices the left hand in the school %s',
    (school) => {
      const done = arrange(waltz, '--school', school, '--hands', 'small', '--json', '-');
      const told = JSON.parse(done.stdout) as { parts: { chords: { school: string }[] }[]; findings: { severity: string }[] };
      expect(new Set(told.parts.flatMap((p) => p.chords.map((c) => c.school)))).toEqual(new Set([school]));
      expect(told.findings.filter((f) => f.severity === 'fix')).toEqual([]);
    },
  );

  it('takes the length of parts, the notes of dominants, harmony, an ending and a plan', () => {
    interface Told {
      parts: { chords: { symbol: string; pitches: string[] }[] }[];
      score: { hand: string; role: string; at: number; pitch: string }[];
    }
    const told = (...options: string[]) => JSON.parse(arrange(waltz, ...options, '--json', '-').stdout) as Told;
    const parts = (size: string) => told('--size', size).parts.length;
    expect(parts('smaller')).toBeGreaterThan(parts('usual'));
    expect(parts('usual')).toBeGreaterThanOrEqual(parts('larger'));
    const dominant = (notes: string) =>
      told('--notes', notes).parts.flatMap((p) => p.chords.filter((c) => c.symbol === 'D7').map((c) => c.pitches.length));
    expect(Math.max(...dominant('four'))).toBeGreaterThan(Math.max(...dominant('three')));
    const harmony = (density: string) => told('--harmony', density).score.filter((n) => n.role === 'harmony').length;
    expect([harmony('0'), harmony('60') > harmony('20')]).toEqual([0, true]);
    const left = (t: Told) => t.score.filter((n) => n.hand === 'left').length;
    expect(left(told('--plan'))).toBeGreaterThan(left(told()));
    const last = told('--ending', 'suspended')
      .parts.flatMap((p) => p.chords)
      .slice(-3);
    expect(last.map((c) => c.symbol)).toContain('Gsus4');
    const low = told('--ending', 'octave').score.filter((n) => n.hand === 'left');
    expect(low.slice(-2).map((n) => n.pitch.replace(/\d/, ''))).toEqual(['G', 'G']);
    expect(told('--ending', 'rolled').score).not.toEqual(told().score);
  });

  it('prints a summary when no output is named', () => {
    expect(arrange(waltz).stdout).toContain('Lamps Across the Sound · G minor · 3/4 · 5 parts');
  });

  it('explains a bar term by term, and says where there is no such bar', () => {
    const told = arrange(waltz, '--explain', '7');
    expect([told.status, told.stdout.split('\n')[0]]).toEqual([0, 'Bar 7']);
    expect(told.stdout).toMatch(/Voicing of \S+ at bar 7, count 1\n {2}.+: \S+ = .*motion/);
    expect(arrange(waltz, '--explain', '900')).toMatchObject({
      status: 3,
      stderr: expect.stringContaining('no bar 900') as string,
    });
  });

  it.each([
    [['--explain', 'x'], '--explain takes the number of a bar'],
    [['--hands', 'huge'], '--hands takes child, small, medium, large; "huge" is none of them.'],
    [['--keys', '50'], '--keys takes'],
    [['--transpose', 'H'], '--transpose takes a key'],
    [['--school', 'jazz'], '--school takes close, root, two-note, shell'],
    [['--suggest', 'all'], '--suggest takes triads, sevenths, rich'],
    [['--size', 'tiny'], '--size takes smaller, usual, larger'],
    [['--notes', '5'], '--notes takes four, three'],
    [['--harmony', 'lots'], '--harmony takes a number from 0 to 80'],
    [['--harmony', '90'], '--harmony takes a number from 0 to 80'],
    [['--ending', 'loud'], '--ending takes suspended, octave, rolled'],
    [['--texture', 'waltz'], '--texture takes block, held-block, long-bass'],
    [['--nonsense'], "Unknown option '--nonsense'"],
    [['--json', '-', '--abc', '-'], 'Only one output'],
  ])('answers 2 for %j', (options, sentence) => {
    const done = arrange(waltz, ...options);
    expect([done.status, done.stderr.includes(sentence)]).toEqual([2, true]);
  });

  it.each([
    ['empty.abc', '', 'empty.abc: The file is empty.'],
    ['chord.abc', 'X:1\nM:4/4\nL:1/4\nK:C\n"Gzz" C4|', '“Gzz” is not a chord symbol'],
    ['long.abc', 'X:1\nM:4/4\nL:1/4\nK:C\nC4|CDEFG|C4|', 'Measure 2: the bar has 5 counts'],
    ['stacked.letters', 'tune: C4+E4+C4 - - - |', 'Line 1, bar 1: “C4+E4+C4” has a key twice'],
    ['wrong.musicxml', 'X:1\nK:C\nC4|', 'it looks like ABC'],
    ['noise.letters', new Uint8Array(5_000_000).map((_, i) => (i * 31) % 251), 'no readable text'],
    ['high.letters', 'tune: C9 - - - |', 'is off the keyboard'],
  ])('answers 3 for %s with one line that names file, place and cause, and writes nothing', (name, content, cause) => {
    const output = join(folder, `${name}.json`);
    const done = arrange(file(name, content), '--json', output);
    expect(done.status).toBe(3);
    expect(done.stderr.split('\n')).toHaveLength(1);
    expect(done.stderr).toContain(cause);
    expect(done.stderr.startsWith(`${name}: `)).toBe(true);
    expect(existsSync(output)).toBe(false);
  });

  it('answers 3 for a file that is not there and an output that cannot be written', () => {
    const gone = spawned(join(folder, 'none.abc'));
    expect([gone.status, gone.stderr.split('\n').length]).toEqual([3, 1]);
    expect(arrange(waltz, '--json', join(folder, 'no', 'where.json')).stderr).toContain('cannot be written');
  });
});
