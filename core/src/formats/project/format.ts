import type { FileFormat } from '../format.js';
import { decodeText } from '../text.js';
import { readProject } from './project.js';

export const project = {
  order: 30,
  endings: ['json'],
  // A directive of words with chords begins with the same sign.
  looks: (_, head) => /^\s*\{(?!\s*[a-z_]+\s*[:}])/i.test(head),
  read: (data) => {
    const read = readProject(decodeText(data));
    return read.ok ? { ok: true, document: read.document, notices: [], questions: [], counted: [] } : read;
  },
} satisfies FileFormat;
