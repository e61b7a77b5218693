import { DOCUMENT_VERSION, MOST_VERSIONS, type Document, type KeptVersion } from './decisions.js';

/** Keeps the arrangement as it stands under a name, at a time in ISO form; one of the same name is replaced. */
export function keepVersion(doc: Document, name: string, kept: string): Document {
  const trimmed = name.trim().slice(0, 80) || 'Untitled';
  const { song, choices, hands } = doc;
  const others = doc.versions.filter((v) => v.name !== trimmed);
  return { ...doc, versions: [...others, { name: trimmed, kept, song, choices, hands }].slice(-MOST_VERSIONS) };
}

/** Takes a kept version up again; all kept versions stay. Null where none has the name. */
export function takeVersion(doc: Document, name: string): Document | null {
  const version = doc.versions.find((v) => v.name === name);
  return version ? { ...documentOfVersion(version), versions: doc.versions } : null;
}

/** Forgets a kept version. */
export function dropVersion(doc: Document, name: string): Document {
  return { ...doc, versions: doc.versions.filter((v) => v.name !== name) };
}

/** A kept version as a document of its own. */
export function documentOfVersion({ song, choices, hands }: KeptVersion): Document {
  return { version: DOCUMENT_VERSION, song, choices, hands, versions: [] };
}
