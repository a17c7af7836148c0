import type { Method, Verb } from '../../contract/index.js';
import { pascalCase, roleOf, words } from '../../model/index.js';
import { entityNamed, valueOf, type DerivationContext } from '../context.js';
import { customOf } from '../customOperations/index.js';
import { OPERATION_PATTERNS, type VerbAndNoun } from '../names/operations.js';
import { pluralOf } from '../names/words.js';
import { transitionName } from '../names/transitions.js';
import type { PlacedResource } from '../place/index.js';

/** Gives each operation a name nobody else has: verb and noun, then with the owner's name, then with its path. */
export class OperationNames {
  private readonly taken = new Set<string>();

  constructor(private readonly context: DerivationContext) {}

  name(
    verb: Verb,
    method: Method,
    resource: PlacedResource,
  ): { readonly id: string; readonly byOwner: boolean } {
    const pattern = OPERATION_PATTERNS[valueOf(this.context, 'operationNames')];
    const candidates = this.candidates(verb, resource).map(pattern);
    const id =
      candidates.find((candidate) => !this.taken.has(candidate)) ?? this.byPath(method, resource, pattern);
    this.taken.add(id);
    return { id, byOwner: id !== candidates[0] };
  }

  private byPath(method: Method, resource: PlacedResource, pattern: (name: VerbAndNoun) => string): string {
    const byPath = pattern({ verb: method.toLowerCase(), noun: pathWords(resource) });
    if (!this.taken.has(byPath)) return byPath;
    return `${method.toLowerCase()}_${resource.id.replace(/[^A-Za-z0-9]/g, (c) => `_${c.charCodeAt(0)}_`)}`;
  }

  private candidates(verb: Verb, resource: PlacedResource): VerbAndNoun[] {
    if (resource.entity === null) return [{ verb: 'read', noun: 'Entry' }];
    const of = (...nouns: readonly string[]): VerbAndNoun[] => nouns.map((one) => ({ verb, noun: one }));
    const noun = resource.entity;
    const owner = this.ownerAndRole(resource);
    if (resource.kind === 'pairing' || resource.kind === 'pair') return this.pairCandidates(verb, resource);
    const own = customOf(this.context, resource);
    if (own !== null)
      return own.custom.kind === 'query'
        ? of(pascalCase(own.operation.name) + this.plural(noun))
        : [{ verb: own.operation.name, noun }];
    if (resource.kind === 'reference') return owner === null ? [] : of(owner.name + pascalCase(owner.role));
    if (!resource.canonical && owner === null)
      return of(verb === 'list' ? `All${this.plural(noun)}` : `Any${noun}`);
    switch (verb) {
      case 'entry':
        return [{ verb: 'read', noun: 'Entry' }];
      case 'list':
        if (owner === null) return of(this.plural(noun));
        return owner.own
          ? of(owner.name + pascalCase(owner.role))
          : of(this.plural(noun), owner.name + pascalCase(owner.role));
      case 'create':
        return owner === null ? of(noun) : of(noun, owner.name + pascalCase(owner.role));
      case 'read':
      case 'replace':
      case 'change':
      case 'remove':
        return owner === null ? of(noun) : of(noun, owner.name + noun);
      case 'transition':
        return [{ verb: transitionName(this.context, resource), noun }];
      case 'attach':
      case 'detach':
      case 'custom':
        return of(noun);
    }
  }

  private plural(entity: string): string {
    return pluralOf(this.context, entityNamed(this.context, entity));
  }

  /** A pairing is named by the entity and its role: `listSailingCrew`, `attachSailingCrew`. */
  private pairCandidates(verb: Verb, resource: PlacedResource): VerbAndNoun[] {
    const pairs = this.context.index.relationshipById.get(resource.via?.relationship ?? '');
    if (pairs === undefined) return [];
    const back = resource.via?.direction === 'paired-back';
    const role = back ? (pairs.back ?? pairs.from) : roleOf(pairs);
    return [{ verb, noun: (back ? pairs.to : pairs.from) + pascalCase(role) }];
  }

  /** `own` is true where the list is not the entity's main one and is named by its role from the start. */
  private ownerAndRole(resource: PlacedResource): { name: string; role: string; own: boolean } | null {
    const { via } = resource;
    if (via === null) return null;
    const relationship = this.context.index.relationshipById.get(via.relationship);
    if (relationship === undefined) return null;
    if (via.direction === 'referred')
      return { name: relationship.from, role: roleOf(relationship), own: true };
    if (relationship.kind === 'refers')
      return { name: relationship.to, role: relationship.back ?? relationship.from, own: true };
    return {
      name: relationship.from,
      role: roleOf(relationship),
      own: relationship.from === relationship.to,
    };
  }
}

const pathWords = (resource: PlacedResource): string =>
  resource.segments
    .map((segment) =>
      segment.kind === 'literal'
        ? pascalCase(words(segment.text).join('-'))
        : `By${pascalCase(segment.parameter)}`,
    )
    .join('');
