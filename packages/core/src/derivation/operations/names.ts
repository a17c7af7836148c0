import { looksThroughList } from '../../contract/index.js';
import type { Method, Verb } from '../../contract/index.js';
import { pascalCase, roleOf, words } from '../../model/index.js';
import { operationKey, type SettingName, type SettingPlace } from '../../arrangement/index.js';
import { becauseSetAt, entityNamed, hasOwnSettings, valueOf, type DerivationContext } from '../context.js';
import { customOf, fixedOf } from '../customOperations/index.js';
import { OPERATION_PATTERNS, type VerbAndNoun } from '../names/operations.js';
import { pluralOf } from '../names/words.js';
import { transitionAt } from '../names/transitions.js';
import type { PlacedResource } from '../place/index.js';
import type { Offers } from './offers.js';

/** The settings with the house's words for what operations do. */
const HOUSE_WORDS = {
  list: 'listWord',
  read: 'readWord',
  create: 'createWord',
  replace: 'replaceWord',
  change: 'changeWord',
  remove: 'removeWord',
} as const satisfies Partial<Record<Verb, SettingName>>;

/** What an operation is called, and why: as it was told, by verb and noun, or so that nobody else is called so. */
export interface OperationName {
  readonly id: string;
  readonly by: 'own' | 'verb' | 'owner';
}

/** Gives each operation a name nobody else has: its own, verb and noun, then with the owner's name, then its path. */
export class OperationNames {
  private readonly taken = new Set<string>();
  /** Names that were chosen for single operations, by the key of the operation; each is given once. */
  private readonly own = new Map<string, string>();

  constructor(
    private readonly context: DerivationContext,
    offers: Offers,
  ) {
    for (const { id: resource } of offers.resources)
      for (const verb of offers.offered(resource)) this.reserve({ resource, verb });
  }

  private reserve(at: SettingPlace & { readonly verb: Verb }): void {
    const { context } = this;
    if (!hasOwnSettings(context, at)) return;
    const name = valueOf(context, 'operationName', at);
    if (name === '') return;
    if (!this.taken.has(name)) {
      this.taken.add(name);
      this.own.set(operationKey(at.resource, at.verb), name);
      return;
    }
    context.findings.push({
      id: 'operation.collide',
      severity: 'error',
      message: `Two operations would be called ${name}; the second keeps the name it is given.`,
      about: at.resource,
      reasons: [becauseSetAt(context, 'finding.collision', ['operationName'], at)],
    });
  }

  name(verb: Verb, method: Method, resource: PlacedResource): OperationName {
    const own = this.own.get(operationKey(resource.id, verb));
    if (own !== undefined) return { id: own, by: 'own' };
    const pattern = OPERATION_PATTERNS[valueOf(this.context, 'operationNames')];
    const candidates = this.candidates(verb, resource).map((name) => pattern(this.inHouseWords(name)));
    const id =
      candidates.find((candidate) => !this.taken.has(candidate)) ?? this.byPath(method, resource, pattern);
    this.taken.add(id);
    return { id, by: id === candidates[0] ? 'verb' : 'owner' };
  }

  /** The verb as the house says it. */
  private inHouseWords({ verb, noun }: VerbAndNoun): VerbAndNoun {
    const word = Object.hasOwn(HOUSE_WORDS, verb) ? HOUSE_WORDS[verb as keyof typeof HOUSE_WORDS] : null;
    return { verb: word === null ? verb : valueOf(this.context, word), noun };
  }

  private byPath(method: Method, resource: PlacedResource, pattern: (name: VerbAndNoun) => string): string {
    const byPath = pattern({ verb: method.toLowerCase(), noun: pathWords(resource) });
    if (!this.taken.has(byPath)) return byPath;
    return `${method.toLowerCase()}_${resource.id.replace(/[^A-Za-z0-9]/g, (c) => `_${c.charCodeAt(0)}_`)}`;
  }

  private candidates(verb: Verb, resource: PlacedResource): VerbAndNoun[] {
    const fixed = fixedOf(this.context, resource);
    if (fixed !== null) return [{ verb, noun: pascalCase(fixed.operation.name) }];
    if (resource.entity === null) return [{ verb: 'read', noun: 'Entry' }];
    const of = (...nouns: readonly string[]): VerbAndNoun[] => nouns.map((one) => ({ verb, noun: one }));
    const noun = resource.entity;
    const owner = this.ownerAndRole(resource);
    if (resource.kind === 'pairing' || resource.kind === 'pair') return this.pairCandidates(verb, resource);
    const own = customOf(this.context, resource);
    if (own?.custom.kind === 'caller') return of(pascalCase(own.operation.name));
    if (own?.custom.kind === 'aggregate')
      return [
        { verb, noun: this.unlessNamed(own.operation.name, noun, noun) + pascalCase(own.operation.name) },
      ];
    if (own !== null)
      return looksThroughList(own.custom)
        ? [
            {
              verb: verb === 'custom' ? 'query' : verb,
              noun:
                pascalCase(own.operation.name) +
                this.unlessNamed(
                  own.operation.name,
                  noun,
                  own.custom.kind === 'query' ? this.plural(noun) : noun,
                ),
            },
          ]
        : [{ verb: own.operation.name, noun: this.unlessNamed(own.operation.name, noun, noun) }];
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
        return [{ verb: transitionAt(this.context, resource).name, noun }];
      case 'attach':
      case 'detach':
      case 'custom':
        return of(noun);
    }
  }

  /** What follows a name of one's own: nothing, where it holds the noun already, as `closeSailing` does. */
  private unlessNamed(name: string, entity: string, noun: string): string {
    const said = words(name).join(' ');
    const holds = (text: string): boolean => ` ${said} `.includes(` ${words(text).join(' ')} `);
    return holds(entity) || holds(this.plural(entity)) ? '' : noun;
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
