import * as Y from 'yjs';

type Ids = ReadonlyMap<string, string>;

/**
 * A document of Yjs in which ids stand for other things: every value of a map and every attribute of a node that is such an id, or a
 * list or an object with such ids, is replaced. Written text is left as it is.
 * @param roots the maps in which they stand, by their names
 * @returns an update that holds all of it
 */
export function withIdsReplaced(update: Uint8Array, roots: readonly string[], ids: Ids): Uint8Array {
  const document = new Y.Doc();
  Y.applyUpdate(document, update);
  document.transact(() => roots.forEach((root) => replaceInMap(document.getMap(root), ids)));
  const replaced = Y.encodeStateAsUpdate(document);
  document.destroy();
  return replaced;
}

function replaceInMap(map: Y.Map<unknown>, ids: Ids): void {
  for (const [key, value] of map.entries()) {
    if (value instanceof Y.Map) replaceInMap(value as Y.Map<unknown>, ids);
    else if (value instanceof Y.XmlFragment) replaceInNodes(value, ids);
    else {
      const other = replaced(value, ids);
      if (other !== value) map.set(key, other);
    }
  }
}

function replaceInNodes(parent: Y.XmlFragment, ids: Ids): void {
  for (const node of parent.toArray()) {
    if (!(node instanceof Y.XmlElement)) continue;
    for (const [name, value] of Object.entries(node.getAttributes() as Record<string, unknown>)) {
      const other = replaced(value, ids);
      if (other !== value) node.setAttribute(name, other as string);
    }
    replaceInNodes(node, ids);
  }
}

function replaced(value: unknown, ids: Ids): unknown {
  if (typeof value === 'string') return ids.get(value) ?? value;
  if (Array.isArray(value)) {
    const others = value.map((one: unknown) => replaced(one, ids));
    return others.some((one, i) => one !== value[i]) ? others : value;
  }
  if (typeof value !== 'object' || value === null || Object.getPrototypeOf(value) !== Object.prototype)
    return value;
  const others = Object.entries(value).map(([key, one]) => [key, replaced(one, ids)] as const);
  return others.some(([key, one]) => one !== (value as Record<string, unknown>)[key])
    ? Object.fromEntries(others)
    : value;
}
