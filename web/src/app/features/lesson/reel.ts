import type { Arrangement } from '@joined-hands/core/arrange';
import { secondsToSay, type LessonScript, type Scene } from '@joined-hands/core/lesson';
import { midiOf } from '@joined-hands/core/pitch';
import { notesOf, plainScore } from '@joined-hands/core/practice';
import { SCENE_LABELS, type Speech } from '@joined-hands/core/words';
import { scheduleStretch, type Sound } from '../../platform/audio/schedule';
import type { HandView } from '../../platform/state/desk.store';

/** A key that is shown under its finger. */
export interface ShownKey {
  readonly midi: number;
  readonly hand: 'left' | 'right';
  readonly finger: string;
}

/** What is to be seen for some seconds of a scene. */
export interface Shot {
  readonly from: number;
  readonly until: number;
  /** Number of the part on the strip, and how it is shown. */
  readonly part: number;
  readonly view: HandView;
  readonly caption: string;
  /** The place of the song that is marked, in ticks, or null. */
  readonly at: number | null;
  readonly keys: readonly ShownKey[];
}

/** A scene of a lesson as it is seen and heard, in seconds from its start. */
export interface Take {
  readonly chapter: string;
  readonly title: string;
  readonly seconds: number;
  readonly shots: readonly Shot[];
  readonly sounds: readonly Sound[];
}

/** Letters that are read in a second. */
const READ = 14;
/** Seconds between the notes of a chord that is spelled out, for which a key that is shown sounds, and after a scene. */
const SPELLED = 0.42;
const SOUNDS = 1.2;
const AFTER = 0.7;
const LOUDNESS = 0.55;

/** How a scene is shown: by one hand, by both, or with all that dresses it. */
export function viewOf({ plays, kind }: Pick<Scene, 'plays' | 'kind'>): HandView {
  if (kind === 'pattern' || plays?.plain === false) return 'fills';
  if (plays) return plays.hands === 'both' ? 'joined' : plays.hands;
  return kind === 'names' ? 'right' : kind === 'chords' ? 'left' : 'joined';
}

/** What a lesson names note by note: what is struck before anything dresses it, and the fills. */
export const namedNotes = (arrangement: Arrangement) => [
  ...plainScore(arrangement),
  ...arrangement.score.filter((n) => n.role === 'fill'),
];

/**
 * A lesson as it is seen and heard, scene by scene. `turns` are left to whoever watches: as long as the passage, with its count-in.
 */
export function takesOf(
  arrangement: Arrangement,
  { chapters }: LessonScript,
  say: Speech,
  turns: { readonly says: string } | null,
): Take[] {
  const named = namedNotes(arrangement);
  return chapters.flatMap((chapter) =>
    chapter.scenes.map((scene): Take => {
      const { shots, sounds, seconds } = takeOf(arrangement, named, scene, say, turns);
      return { chapter: say.fact(chapter.title), title: SCENE_LABELS[scene.kind], seconds: seconds + AFTER, shots, sounds };
    }),
  );
}

function takeOf(
  arrangement: Arrangement,
  named: ReturnType<typeof namedNotes>,
  scene: Scene,
  say: Speech,
  turns: { readonly says: string } | null,
): Pick<Take, 'shots' | 'sounds' | 'seconds'> {
  const { lines, plays, asks } = scene;
  const view = viewOf(scene);
  const shots: Shot[] = [];
  const sounds: Sound[] = [];
  let now = 0;
  let caption = '';
  const strike = (midi: number, time: number) => sounds.push({ time, duration: SOUNDS, midi, loudness: LOUDNESS });
  for (const line of lines) {
    caption = say.fact(line.says);
    const midis = line.strikes.map(midiOf);
    const spelled = line.says.code === 'lesson.chord' && !line.says.again ? midis : [];
    spelled.forEach((midi, i) => strike(midi, now + i * SPELLED));
    const struck = now + spelled.length * SPELLED;
    for (const midi of midis) strike(midi, struck);
    const read = line.says.code === 'lesson.note' || line.says.code === 'lesson.strike' ? 0 : caption.length / READ;
    const until = Math.max(now + Math.max(secondsToSay(line), read), struck + (midis.length > 0 ? 0.6 : 0));
    const keys = named
      .filter((n) => n.at === line.at && midis.includes(midiOf(n.pitch)))
      .map((n) => ({ midi: midiOf(n.pitch), hand: n.hand, finger: n.finger ? `${n.finger}` : '' }));
    shots.push({ from: now, until, part: scene.part, view, caption, at: line.at, keys });
    now = until;
  }
  if (!plays) return { shots, sounds, seconds: now };
  const { from, to, hands, share } = plays;
  const tempo = arrangement.song.tempo * share;
  const notes = notesOf(arrangement, plays);
  const moments = [...new Set(notes.map((n) => n.place))];
  for (const turn of turns && asks ? [false, true] : [false]) {
    const plan = scheduleStretch(arrangement, from, to, {
      hands: turn ? 'none' : hands,
      plain: plays.plain,
      tempo,
      countIn: turn,
      click: turn,
    });
    const begin = now;
    sounds.push(...plan.sounds.map((s) => ({ ...s, time: s.time + begin })));
    const says = turn && turns ? turns.says : caption;
    const first = notes.at(0);
    const starts = moments.map((place) => {
      const at = notes.find((n) => n.place === place)?.at ?? 0;
      return { place, time: begin + plan.lead + ((at - (first?.at ?? 0)) * 60) / tempo };
    });
    const lead = notes.length > 0 ? starts[0].time : begin + plan.length;
    if (lead > begin)
      shots.push({ from: begin, until: lead, part: partAt(arrangement, from), view, caption: says, at: null, keys: [] });
    starts.forEach(({ place, time }, i) => {
      const keys = notes
        .filter((n) => n.place === place)
        .map((n) => ({ midi: n.midi, hand: n.hand, finger: n.finger ? `${n.finger}` : '' }));
      const until = starts.at(i + 1)?.time ?? begin + plan.length;
      shots.push({ from: time, until, part: partAt(arrangement, place), view, caption: says, at: place, keys });
    });
    now = begin + plan.length + AFTER;
  }
  return { shots, sounds, seconds: now };
}

const partAt = ({ parts }: Arrangement, at: number): number =>
  (parts.find((p) => at >= p.start && at < p.end) ?? parts[parts.length - 1]).number;

/** Shots of takes one after another: where each take starts, which is its first, and until when a shot is seen, with no gap between. */
export function inOneRow(takes: readonly Take[]): { take: Take; shot: Shot; start: number; until: number; first: boolean }[] {
  let start = 0;
  return takes.flatMap((take) => {
    const began = start;
    start += take.seconds;
    return take.shots.map((shot, i) => ({
      take,
      shot,
      start: began,
      until: take.shots.at(i + 1)?.from ?? take.seconds,
      first: i === 0,
    }));
  });
}
