import { dataFault, type DataFault } from '../result.js';
import { PROJECT_KIND, projectText } from '../../song/project-text.js';
import { DocumentSchema, isNewerDocument, type Document } from '../../song/decisions.js';

/** Why a file is no project that can be opened. */
export type ProjectFault =
  | { readonly code: 'project.not-json' }
  | { readonly code: 'project.not-ours' }
  | { readonly code: 'project.newer'; readonly version: string }
  | { readonly code: 'project.damaged'; readonly path: readonly string[]; readonly fault: DataFault };

/** A document that was read, or why not. */
export type ProjectReading =
  { readonly ok: true; readonly document: Document } | { readonly ok: false; readonly fault: ProjectFault };

/** Writes a document as a project file. */
export const writeProject: (document: Document) => string = projectText;

/** Reads a project file. Files of older versions are brought forward; those of newer ones are refused by name. */
export function readProject(text: string): ProjectReading {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, fault: { code: 'project.not-json' } };
  }
  return projectFrom(data);
}

/** The same of what was read from JSON already. */
export function projectFrom(data: unknown): ProjectReading {
  if (typeof data !== 'object' || data === null || (data as { kind?: unknown }).kind !== PROJECT_KIND)
    return { ok: false, fault: { code: 'project.not-ours' } };
  const { kind: _kind, ...rest } = data as { kind: string; version?: unknown };
  if (isNewerDocument(rest.version)) return { ok: false, fault: { code: 'project.newer', version: String(rest.version) } };
  const checked = DocumentSchema.safeParse(rest);
  if (checked.success) return { ok: true, document: checked.data };
  const [issue] = checked.error.issues;
  return { ok: false, fault: { code: 'project.damaged', path: issue.path.map(String), fault: dataFault(issue) } };
}
