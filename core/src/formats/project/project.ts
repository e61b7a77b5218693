import { plainFault } from '../result.js';
import { PROJECT_KIND, projectText } from '../../song/project-text.js';
import { DocumentSchema, isNewerDocument, type Document } from '../../song/decisions.js';

/** A document that was read, or one sentence that says why not. */
export type ProjectReading =
  { readonly ok: true; readonly document: Document } | { readonly ok: false; readonly sentence: string };

/** Writes a document as a project file. */
export const writeProject: (document: Document) => string = projectText;

/** Reads a project file. Files of older versions are brought forward; those of newer ones are refused by name. */
export function readProject(text: string): ProjectReading {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, sentence: 'This is not a project file: it is no JSON. Choose one saved by Joined Hands.' };
  }
  if (typeof data !== 'object' || data === null || (data as { kind?: unknown }).kind !== PROJECT_KIND)
    return { ok: false, sentence: 'This JSON is not a project file. Choose one saved by Joined Hands.' };
  const { kind: _kind, ...rest } = data as { kind: string; version?: unknown };
  if (isNewerDocument(rest.version))
    return {
      ok: false,
      sentence: `This project was saved by a newer version (${String(rest.version)}). Update Joined Hands to open it.`,
    };
  const checked = DocumentSchema.safeParse(rest);
  if (checked.success) return { ok: true, document: checked.data };
  const fault = checked.error.issues[0];
  const place = fault.path.length > 0 ? ` at ${fault.path.join(' › ')}` : '';
  return { ok: false, sentence: `The project file is damaged${place}: ${plainFault(fault.message)} Choose another copy of it.` };
}
