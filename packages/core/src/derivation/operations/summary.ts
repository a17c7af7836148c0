import type { Custom, Verb } from '../../contract/index.js';
import {
  capital,
  ownsItself,
  phrase,
  roleOf,
  singular,
  withArticle,
  type Entity,
} from '../../model/index.js';
import { entityNamed, type DerivationContext } from '../context.js';
import { customOf, fixedOf, type ResolvedCustom } from '../customOperations/index.js';
import { pluralOf } from '../names/words.js';
import { transitionAt } from '../names/transitions.js';
import type { PlacedResource } from '../place/index.js';

/** What an operation does, in a few words. */
export function summaryOf(
  context: DerivationContext,
  verb: Verb,
  resource: PlacedResource,
  entity: Entity | null,
): string {
  const fixed = fixedOf(context, resource);
  if (fixed !== null) return capital(phrase(fixed.operation.name));
  if (entity === null) return 'Where everything begins: links to what can be reached first';
  const noun = phrase(entity.name);
  const many = phrase(pluralOf(context, entity));
  const owner = below(context, resource);
  const own = customOf(context, resource);
  if (own !== null) return customSummary(context, own, noun, many);
  switch (verb) {
    case 'custom':
    case 'entry':
    case 'list':
      return `List the ${many}${owner}${resource.canonical || owner !== '' ? '' : ', whatever owns them'}`;
    case 'create':
      return `Create ${withArticle(noun)}${owner}`;
    case 'read':
      return resource.kind === 'reference' ? `Read the ${noun}${owner}` : `Read ${withArticle(noun)}`;
    case 'replace':
      return `Replace ${withArticle(noun)} as a whole`;
    case 'change':
      return `Change parts of ${withArticle(noun)}`;
    case 'remove':
      return `Remove ${withArticle(noun)}`;
    case 'attach':
      return `Pair ${withArticle(noun)} with ${pairedWith(context, resource)}`;
    case 'detach':
      return `End the pair of ${withArticle(noun)} with ${pairedWith(context, resource)}`;
    case 'transition':
      return `${capital(phrase(transitionAt(context, resource).name))} ${withArticle(noun)}`;
  }
}

/** What an operation of one's own does. */
function customSummary(context: DerivationContext, own: ResolvedCustom, noun: string, many: string): string {
  const name = capital(phrase(own.operation.name));
  switch (own.custom.kind) {
    case 'query':
      return `${name}: at most ${own.custom.limit} of the ${many}`;
    case 'find':
      return `${name}: one of the ${many}`;
    case 'aggregate':
      return `${name}: ${aggregateWords(context, own.custom)}`;
    case 'many':
      return `${name}: many of the ${many}, all or none`;
    case 'verify':
      return own.custom.answers.kind === 'token'
        ? `${name}: a token for ${withArticle(noun)}`
        : `${name}: the ${noun} that matches`;
    case 'revoke':
      return `${name}: end the token`;
    case 'caller':
      return `${name}: the ${noun} who calls`;
    case 'assign':
    case 'create':
    case 'fixed':
      return `${name} ${withArticle(noun)}`;
  }
}

/** What an aggregate tells, in a few words. */
function aggregateWords(
  context: DerivationContext,
  { of, along, entity, taken }: Extract<Custom, { kind: 'aggregate' }>,
): string {
  const whose = `${phrase(pluralOf(context, entityNamed(context, entity)))}${along.length === 0 ? '' : ' of it'}`;
  return taken === null ? `the number of ${whose}` : `the ${of} of one value of the ${whose}`;
}

function pairedWith(context: DerivationContext, resource: PlacedResource): string {
  const pairs = context.index.relationshipById.get(resource.via?.relationship ?? '');
  if (pairs === undefined) return 'another';
  const back = resource.via?.direction === 'paired-back';
  const noun = phrase(back ? pairs.to : pairs.from);
  return `${withArticle(noun)}, as its ${phrase(singular(back ? (pairs.back ?? pairs.from) : roleOf(pairs)))}`;
}

function below(context: DerivationContext, resource: PlacedResource): string {
  const { via } = resource;
  if (via === null) return '';
  if (via.direction === 'paired' || via.direction === 'paired-back') {
    const pairs = context.index.relationshipById.get(via.relationship);
    const other = pairs === undefined ? 'one' : phrase(via.direction === 'paired' ? pairs.from : pairs.to);
    return ` that ${withArticle(other)} is paired with`;
  }
  if (via.direction === 'referred') {
    const refers = context.index.relationshipById.get(via.relationship);
    return refers === undefined
      ? ''
      : ` that ${withArticle(phrase(refers.from))} has as its ${phrase(roleOf(refers))}`;
  }
  if (via.direction === 'referrers') {
    const refers = context.index.relationshipById.get(via.relationship);
    return refers === undefined
      ? ''
      : ` that have ${withArticle(phrase(refers.to))} as ${phrase(refers.role ?? refers.to)}`;
  }
  const owns = context.index.ownerOf.get(resource.entity ?? '');
  if (owns === undefined) return '';
  return ownsItself(owns) ? ` below another` : ` of ${withArticle(phrase(owns.from))}`;
}
