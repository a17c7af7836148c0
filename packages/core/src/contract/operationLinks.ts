/** A link to an operation in a text, as it is kept: by what outlives its name. */
const KEPT = /\[operation:([^\]\s]{1,400})\]/g;
/** A link as it is written; what goes on as another link of CommonMark (§6.3) is none. */
const WRITTEN = /\[([A-Za-z][A-Za-z0-9_]{0,79})\](?![[(:])/g;
/** Names of operations are a verb and a noun in one word; other words in brackets may mean anything. */
const LIKE_OPERATION = /^[a-z]+[A-Z0-9]/;
/** Code says what it says (CommonMark §6.1). */
const CODE = /(`+)[^`]*\1/g;

/** A text as it is kept: `[listRoutes]` says which operation that is. `keyOf`: by the id of an operation. */
export const withOperationKeys = (text: string, keyOf: (id: string) => string | undefined): string =>
  text.replace(WRITTEN, (whole, name: string) => {
    const key = keyOf(name);
    return key === undefined ? whole : `[operation:${key}]`;
  });

/** A kept text with the names that operations have now; what is gone keeps its key. */
export const withOperationNames = (text: string, idOf: (key: string) => string | undefined): string =>
  text.replace(KEPT, (whole, key: string) => {
    const id = idOf(key);
    return id === undefined ? whole : `[${id}]`;
  });

/** What a text with names links to as if it were an operation, and is none: `listRoutes`, `operation:Route:list`. */
export function danglingOperations(text: string, isOperation: (id: string) => boolean): readonly string[] {
  const prose = text.replace(CODE, '');
  const gone = [...prose.matchAll(KEPT)].map(([whole]) => whole.slice(1, -1));
  const unknown = [...prose.matchAll(WRITTEN)].flatMap(([, name = '']) =>
    LIKE_OPERATION.test(name) && !isOperation(name) ? [name] : [],
  );
  return [...new Set([...gone, ...unknown])];
}

/** A text without the brackets of a link to an operation; what stood in them stays, or becomes something else. */
export const withoutOperationLink = (text: string, name: string, instead: string): string =>
  text.split(`[${name}]`).join(instead);

/** The parts of a text between its links to operations, and the operations. */
export function splitAtOperations(
  text: string,
  isOperation: (id: string) => boolean,
): readonly (string | { readonly operation: string })[] {
  const parts: (string | { readonly operation: string })[] = [];
  let at = 0;
  for (const found of text.matchAll(WRITTEN)) {
    const [whole, name = ''] = found;
    if (!isOperation(name)) continue;
    if (found.index > at) parts.push(text.slice(at, found.index));
    parts.push({ operation: name });
    at = found.index + whole.length;
  }
  if (at < text.length) parts.push(text.slice(at));
  return parts;
}
