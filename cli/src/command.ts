import { readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';
import { arrange, explainBar, proposedPlanEdit, USUAL_SUGGESTION, type Arrangement } from '@joined-hands/core/arrange';
import { midiScore, repeatPlace, wordLines, writtenScore } from '@joined-hands/core/sheet';
import { applyEdit, rangeOf, type Document, type Edit } from '@joined-hands/core/song';
import { meterName } from '@joined-hands/core/time';
import { ENGLISH, partTitle, repeatWords } from '@joined-hands/core/words';
import { chartText, explanationText, lessonText, report } from '@joined-hands/core/words/texts';
import { leftOutOf, openFile, writeAbc, writeChordPro, writeMidi, writeMusicXml, writeProject } from '@joined-hands/core/formats';
import { OUTPUTS, readOptions, USAGE, WrongOption, type Options, type Output } from './options.js';

const WRITERS: Record<Output, (document: Document, arrangement: Arrangement) => string | Uint8Array> = {
  json: (document, arrangement) => `${JSON.stringify(report(document, arrangement, ENGLISH), null, 2)}\n`,
  musicxml: (_, arrangement) => writeMusicXml(writtenScore(arrangement)),
  midi: (_, arrangement) => writeMidi(...midiScore(arrangement)),
  abc: (_, arrangement) => writeAbc(arrangement.song),
  chordpro: (_, arrangement) => writeChordPro(arrangement.song, wordLines(arrangement)),
  chart: (_, arrangement) => chartText(arrangement, ENGLISH),
  lesson: (_, arrangement) => lessonText(arrangement, ENGLISH),
  project: (document) => writeProject(document),
};

/** Runs the `arrange` command and answers its exit code. */
export function main(args: readonly string[]): number {
  if (args.includes('--help') || args.length === 0) {
    process.stdout.write(USAGE);
    return args.length === 0 ? 2 : 0;
  }
  let options: Options;
  try {
    options = readOptions(args);
  } catch (error) {
    if (!(error instanceof WrongOption)) throw error;
    process.stderr.write(`${error.message} See: npm run -s arrange -- --help\n`);
    return 2;
  }
  return run(options);
}

function run(options: Options): number {
  const name = basename(options.input);
  const refused = (sentence: string): number => {
    process.stderr.write(`${sentence.replaceAll('\n', ' ')}\n`);
    return 3;
  };
  let data: Uint8Array;
  try {
    data = new Uint8Array(readFileSync(options.input));
  } catch {
    return refused(`${name}: The file cannot be read. Check its name and folder: ${options.input}`);
  }
  const opened = openFile(name, data, options.format ?? undefined);
  if (!opened.ok) return refused(`${opened.name}: ${ENGLISH.fact(opened.fault)}`);
  for (const notice of opened.notices) process.stderr.write(`${name}: ${ENGLISH.fact(notice)}\n`);
  let arrangement: Arrangement;
  let document: Document;
  let explanation: string | null = null;
  let written: { readonly file: string; readonly content: string | Uint8Array }[];
  try {
    document = withOptions(opened.document, options);
    arrangement = arrange(document);
    // Everything is computed before anything is written, so that no output is left half done.
    if (options.explain !== null) {
      const explained = explainBar(document, options.explain);
      if (!explained) return refused(`${name}: There is no bar ${options.explain} in this song. Choose another bar.`);
      explanation = explanationText(explained, ENGLISH);
    }
    written = options.outputs.map((o) => ({ file: o.file, content: WRITERS[o.kind](document, arrangement) }));
  } catch {
    return refused(`${name}: The song was read but could not be arranged. Keep the file and report the problem.`);
  }
  if (options.outputs.some((o) => o.kind === 'abc')) {
    const counted = leftOutOf('abc', document);
    if (counted.length > 0) process.stderr.write(`${name}: ${ENGLISH.fact({ code: 'notice.not-written', counted })}\n`);
  }
  for (const { file, content } of written) {
    if (file === '-') process.stdout.write(content);
    else if (!save(file, content)) return refused(`${file}: The output cannot be written. Check that its folder exists.`);
  }
  if (explanation !== null) process.stdout.write(explanation);
  else if (written.length === 0) process.stdout.write(summary(arrangement));
  return 0;
}

/** Writes beside the target first and renames, so that a file is whole or not there. */
function save(file: string, content: string | Uint8Array): boolean {
  const half = `${file}.part`;
  try {
    writeFileSync(half, content);
    renameSync(half, file);
    return true;
  } catch {
    rmSync(half, { force: true });
    return false;
  }
}

/** The file's document with what the options ask for, in the place of the file's own. */
function withOptions(given: Document, options: Options): Document {
  const asked = applyEdit(given, { code: 'edit.several', as: { kind: 'options' }, edits: editsOf(given, options) });
  const { plan, ending } = options;
  if (!plan && ending !== 'suspended') return asked;
  // What is proposed for parts is asked of the song as it is divided now.
  const arrangement = arrange(asked);
  const last = arrangement.parts[arrangement.parts.length - 1];
  const planned = plan ? applyEdit(asked, proposedPlanEdit(arrangement)) : asked;
  return ending === 'suspended'
    ? applyEdit(planned, { code: 'edit.setting', range: rangeOf(last), setting: 'ending', value: 'suspended' })
    : planned;
}

function editsOf({ song, choices }: Document, options: Options): Edit[] {
  const { profile, keys, texture, school, vocabulary, stripChords, transpose, size, notes, harmony, ending } = options;
  const bare = song.chords.length === 0 && choices.suggest === null;
  const suggest = { ...USUAL_SUGGESTION, vocabulary: vocabulary ?? USUAL_SUGGESTION.vocabulary };
  return [
    ...(profile ? [{ code: 'edit.hands', change: { profile, left: null, right: null } } as const] : []),
    ...(keys ? [{ code: 'edit.hands', change: { keys } } as const] : []),
    ...(texture ? [{ code: 'edit.setting', range: null, setting: 'texture', value: texture } as const] : []),
    ...(school ? [{ code: 'edit.school', range: null, school } as const] : []),
    ...(size ? [{ code: 'edit.part-size', size } as const] : []),
    ...(notes ? [{ code: 'edit.setting', range: null, setting: 'dominants', value: notes } as const] : []),
    ...(harmony !== null
      ? [{ code: 'edit.setting', range: null, setting: 'harmony', value: { ...choices.harmony, density: harmony } } as const]
      : []),
    ...(ending === 'octave' || ending === 'rolled' ? [{ code: 'edit.close', change: { touch: ending } } as const] : []),
    ...(stripChords ? [{ code: 'edit.strip-chords' } as const] : []),
    ...(stripChords || (bare && vocabulary !== null) ? [{ code: 'edit.suggest', range: null, suggest } as const] : []),
    ...(transpose ? [{ code: 'edit.key', key: transpose } as const] : []),
  ];
}

function summary(arrangement: Arrangement): string {
  const { song, parts, bars, findings, totals } = arrangement;
  const { count, fact, key } = ENGLISH;
  const lines = [
    `${song.title} · ${key(song.key)} · ${meterName(song.meters[0])} · ${count(parts.length, 'part')}`,
    ...parts.map((p) => {
      const chords = p.chords.filter((c) => !c.restruck).map((c) => c.symbol);
      const repeat = repeatPlace(p, bars);
      const same = repeat ? ` (${repeatWords(repeat)})` : '';
      return `  ${p.number} ${p.label}  ${partTitle(p)}${same}: ${count(p.melody.length, 'note')}; ${chords.join(' ')}`;
    }),
    `The left hand moves ${totals.leftTravel} half steps; in root position it would move ${totals.leftTravelRoot}.`,
    ...findings.map((f) => `  ${f.severity}: ${fact(f.fact)}`),
    `Outputs: ${OUTPUTS.map((o) => `--${o} FILE`).join(' ')}`,
  ];
  return `${lines.join('\n')}\n`;
}
