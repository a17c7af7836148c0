import { operationKey, saidOf, WHOLE_API } from '../../arrangement/index.js';
import { isOwnTag, type Tag, type OperationNaming } from '../../contract/index.js';
import { capital, phrase, type Entity } from '../../model/index.js';
import type { DerivationContext } from '../context.js';
import { pluralOf } from '../names/words.js';
import { externalOf } from './api.js';
import type { UndocumentedContract } from './undocumentedContract.js';

/** The tag of what shows the records of no entity. */
const ENTRY_TAG = 'entry';

interface Tagged {
  /** Those that operations have, in their order. */
  readonly tags: readonly Tag[];
  /** The ids of the tags of an operation, by its id. */
  readonly tagsOf: ReadonlyMap<string, readonly string[]>;
}

/**
 * The tags of operations: what is said of each, else the entity whose records it shows. Tags that were given one
 * title are one, the first of them.
 */
export function deriveTags(
  context: DerivationContext,
  { operations, resources }: UndocumentedContract,
  { named }: OperationNaming,
): Tagged {
  const { documentation } = context.arrangement;
  const entities = new Map(
    context.model.declarations.flatMap((one) => (one.kind === 'entity' ? [[one.name, one] as const] : [])),
  );
  const derived = new Map(
    resources.map(({ id, entity }) => [id, entities.get(entity ?? '')?.id ?? ENTRY_TAG]),
  );
  const byId = new Map([...entities.values()].map((entity) => [entity.id, entity]));
  const chosen = new Map(
    operations.map(({ id, resource, verb }) => {
      const { tags } = saidOf(documentation, 'operation', operationKey(resource, verb));
      return [id, tags?.split(', ') ?? [derived.get(resource) ?? ENTRY_TAG]];
    }),
  );
  const titled = new Map<string, string>();
  const sameTitle = new Map<string, string>();
  for (const id of ordered(context, [...chosen.values()].flat())) {
    const title = saidOf(documentation, 'tag', id).title ?? usualTitle(context, id, byId.get(id));
    const first = titled.get(title) ?? id;
    titled.set(title, first);
    sameTitle.set(id, first);
  }
  return {
    tags: [...titled].map(([title, id]) => {
      const said = saidOf(documentation, 'tag', id);
      const description =
        said.description === undefined ? (byId.get(id)?.description ?? null) : named(said.description);
      return { id, title, description, external: externalOf(said) };
    }),
    tagsOf: new Map(
      [...chosen].map(([operation, ids]) => [
        operation,
        [...new Set(ids.map((id) => sameTitle.get(id) ?? id))],
      ]),
    ),
  };
}

/** Ids of tags, each once: first those whose order is said, then the others as they come. */
function ordered({ arrangement }: DerivationContext, ids: readonly string[]): readonly string[] {
  const used = new Set(ids);
  const { tagOrder } = saidOf(arrangement.documentation, 'api', WHOLE_API);
  const first = (tagOrder?.split(', ') ?? []).filter((id) => used.has(id));
  return [...new Set([...first, ...used])];
}

/** What a tag is called where nothing else is said. */
function usualTitle(context: DerivationContext, id: string, entity: Entity | undefined): string {
  if (entity !== undefined) return capital(phrase(pluralOf(context, entity)));
  return isOwnTag(id) ? id.slice(id.indexOf('/') + 1) : capital(id);
}
