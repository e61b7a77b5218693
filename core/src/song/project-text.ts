/** What a project file says that it is. */
export const PROJECT_KIND = 'joined-hands';

/** A document as a project file: JSON, with its kind named so that it is recognised. What cannot be read is written as it is saved. */
export function projectText(saved: unknown): string {
  return `${JSON.stringify({ kind: PROJECT_KIND, ...(saved as object) }, null, 2)}\n`;
}
