import type { Settings } from '../../arrangement/index.js';
import type { Reason } from '../../contract/index.js';
import { camelCase, keyOf, pascalCase, snakeCase, words, type Entity } from '../../model/index.js';
import { becauseSet, valueOf, type DerivationContext } from '../context.js';

const CASES: Readonly<Record<Settings['parameterCase'], (name: string) => string>> = {
  camel: (name) => name,
  snake: snakeCase,
};

const inCase = (context: DerivationContext, name: string): string =>
  CASES[valueOf(context, 'parameterCase')](name);

/** The parameter that holds an entity's key in a path: `{sailingId}`; `as` names it where one is there already. */
export const keyParameter = (context: DerivationContext, entity: Entity, as: string = entity.name): string =>
  inCase(context, withOwner(context, as, keyOf(entity).attribute.name));

/** The same, called after the key alone: `{id}`. */
export const plainParameter = (context: DerivationContext, entity: Entity): string =>
  inCase(context, camelCase(keyOf(entity).attribute.name));

/** What is said once: `userId` of User is `userId`. */
function withOwner({ index }: DerivationContext, as: string, key: string): string {
  const whole = `${camelCase(as)}${pascalCase(key)}`;
  if (!saysOwner(as, key)) return whole;
  // Unless it reads as the key of another one: userGroupId, beside a UserGroup.
  const said = words(key);
  const isOther = said.some(
    (_word, at) => at > words(as).length && index.entities.has(pascalCase(said.slice(0, at).join('_'))),
  );
  return isOther ? whole : camelCase(key);
}

/** What a key that is written in one word may add to the name of its owner. */
const ADDED = /^(?:id|no|nr|key|code|number|uuid)$/;

function saysOwner(as: string, key: string): boolean {
  const [own, said] = [words(as), words(key)];
  if (own.every((word, at) => word === said[at])) return true;
  const [joined, text] = [own.join(''), said.join('')];
  return text.startsWith(joined) && ADDED.test(text.slice(joined.length));
}

/** Why a path parameter is called as it is. */
export const namedParameter = (context: DerivationContext, entity: Entity): Reason =>
  becauseSet(context, 'name.parameter', ['parameterCase', 'parameterNames'], entity, keyOf(entity).attribute);
