import type { Model } from '../model/index.js';
import { printCondition } from '../notation/index.js';
import { ledTo } from './linkGraph.js';
import { indexContract } from './lookup.js';
import type { Contract, Link } from './types.js';

/** Where a link leads, in words or as a path under the root. */
export function leadsTo(contract: Contract, { target }: Link): string {
  switch (target.kind) {
    case 'self':
    case 'pair':
      return 'itself';
    case 'page':
      return `the ${target.page} page`;
    case 'description':
      return 'the published description';
    case 'about':
      return target.path;
    case 'address':
      return target.parts.map((part) => (typeof part === 'string' ? part : '{…}')).join('');
    case 'operation':
      return target.operation;
    default:
      return indexContract(contract).resources.get(ledTo(target) ?? '')?.path ?? '';
  }
}

/** When a link is offered, in the words of the notation; `null` where it always is. */
export function offeredWhen(model: Model, { target }: Link): string | null {
  switch (target.kind) {
    case 'reference':
    case 'read':
      return 'it is set';
    case 'custom':
    case 'operation':
      return target.when.length === 0 ? null : printCondition(target.when);
    case 'along':
    case 'address': {
      const isFilled = target.kind === 'along' || target.parts.some((part) => typeof part !== 'string');
      const all = [
        ...(isFilled ? ['all of it is set'] : []),
        ...(target.when.length === 0 ? [] : [printCondition(target.when)]),
      ];
      return all.length === 0 ? null : all.join(' and ');
    }
    case 'action':
      return movesWhen(model, target.transition);
    case 'page':
      return 'there is one';
    case 'self':
    case 'resource':
    case 'owner':
    case 'filtered':
    case 'template':
    case 'items':
    case 'pair':
    case 'description':
    case 'about':
      return null;
  }
}

/** The states that a transition leads from, and its condition. */
function movesWhen(model: Model, transition: string): string {
  for (const declaration of model.declarations) {
    if (declaration.kind !== 'entity') continue;
    for (const { name, lifeCycle } of declaration.attributes) {
      const found = lifeCycle?.find(({ id }) => id === transition);
      if (found === undefined) continue;
      const states = `${name} = ${found.from.join(', ')}`;
      return found.when === null ? states : `${states} and ${printCondition(found.when)}`;
    }
  }
  return '';
}
