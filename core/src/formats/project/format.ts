import type { FileFormat } from '../format.js';
import { decodeText } from '../text.js';
import { readProject } from './project.js';

export const project = {
  endings: ['json'],
  looks: (_, head) => /^\s*\{/.test(head),
  read: (data) => {
    const read = readProject(decodeText(data));
    return read.ok ? { ok: true, document: read.document, notices: [], questions: [], counted: [] } : read;
  },
} satisfies FileFormat;
