/** A node as the order-preserving parser yields it: one key with its children, attributes under ":@". */
export interface XmlNode {
  readonly [tag: string]: unknown;
}

type Children = readonly XmlNode[];

const tagOf = (node: XmlNode): string => Object.keys(node).find((k) => k !== ':@') ?? '';

/** The children of a node, all or those with a tag. */
export function children(node: XmlNode | undefined, tag?: string): Children {
  if (!node) return [];
  const all = node[tagOf(node)];
  if (!Array.isArray(all)) return [];
  return tag ? (all as Children).filter((n) => tag in n) : (all as Children);
}

/** The first child with a tag. */
export function child(node: XmlNode | undefined, tag: string): XmlNode | undefined {
  return children(node, tag)[0];
}

/** The first node of a list with a tag. */
export function element(nodes: Children, tag: string): XmlNode | undefined {
  return nodes.find((n) => tag in n);
}

/** The text of a node, or of its first child with a tag. */
export function text(node: XmlNode | undefined, tag?: string): string | null {
  const from = tag ? child(node, tag) : node;
  if (!from) return null;
  const parts = children(from).map((n) => n['#text']);
  return parts.some((p) => p !== undefined)
    ? parts.map((p) => (typeof p === 'string' || typeof p === 'number' ? `${p}` : '')).join('')
    : '';
}

/** The text of a child as a number; null when it is missing or no number. */
export function number(node: XmlNode | undefined, tag: string): number | null {
  const value = text(node, tag);
  if (value === null || value.trim() === '') return null;
  const parsed = Number(value);
  return Number.isFinite(parsed) ? parsed : null;
}

/** An attribute of a node. */
export function attribute(node: XmlNode | undefined, name: string): string | undefined {
  const attributes = node?.[':@'] as Record<string, string> | undefined;
  return attributes?.[name];
}
