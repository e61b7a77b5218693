import { describe, expect, it } from 'vitest';
import { demo } from '../../testing/songs.js';
import { arrange } from '../arrange/arrange.js';
import { readMusicXml, writeMusicXml } from '../formats/index.js';
import { writtenScore } from '../sheet/written.js';
import { ENGLISH } from '../words/index.js';
import { chartText, lessonText } from '../words/texts/index.js';
import { DocumentSchema } from './decisions.js';
import { applyEdit } from './edit.js';
import { linkedEdit } from './linked.js';

const song = demo('harbour-glass.abc');
const second = arrange(song).parts[1];
const chord = second.chords[1];
const reminded = applyEdit(song, { code: 'edit.remind', at: chord.at, text: '  jump\nearly: "soft" & <low> ' });

describe('a reminder', () => {
  it('is one line at its place, in the part that the place lies in', () => {
    const { parts } = arrange(reminded);
    expect(parts.map((p) => p.reminders.length)).toEqual(parts.map((p) => (p.number === 2 ? 1 : 0)));
    expect(parts[1].reminders).toEqual([{ at: chord.at, text: 'jump early: "soft" & <low>' }]);
    expect(DocumentSchema.parse(JSON.parse(JSON.stringify(reminded)))).toEqual(reminded);
  });

  it('is read in the chart, the lesson and the score, with its place', () => {
    const arrangement = arrange(reminded);
    for (const text of [chartText(arrangement, ENGLISH), lessonText(arrangement, ENGLISH)])
      expect(text).toMatch(/^ {2}Bar \d+, count .+: jump early: "soft" & <low>$/m);
    const xml = writeMusicXml(writtenScore(arrangement));
    const read = readMusicXml(new TextEncoder().encode(xml));
    expect(read.ok && read.reminders).toEqual([{ at: chord.at, text: 'jump early: "soft" & <low>' }]);
    expect(read.ok && read.song.marks.filter((m) => m.kind === 'words')).toEqual([]);
  });

  it('is written anew, taken away when it is emptied, and moves no note', () => {
    const other = applyEdit(reminded, { code: 'edit.remind', at: chord.at, text: 'wrist low' });
    expect(arrange(other).parts[1].reminders.map((r) => r.text)).toEqual(['wrist low']);
    expect(applyEdit(other, { code: 'edit.remind', at: chord.at, text: ' ' })).toEqual(song);
    expect(arrange(other).score).toEqual(arrange(song).score);
  });

  it('stays at its place in another key, and can be taken over by repeats', () => {
    const moved = applyEdit(reminded, { code: 'edit.key', key: { tonic: 'Eb', mode: 'major' } });
    expect(arrange(moved).parts[1].reminders).toHaveLength(1);
    const { parts } = arrange(song);
    const repeat = parts.find((p) => p.repeats?.kind === 'exact');
    const of = parts[(repeat?.repeats?.part ?? 1) - 1];
    const linked = linkedEdit({ code: 'edit.remind', at: of.start, text: 'again' }, parts, of.number);
    expect(linked?.parts).toContain(repeat?.number);
  });
});
