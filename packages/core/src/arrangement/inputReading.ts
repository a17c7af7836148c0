import { COMPARE_OPERATORS, isJsonObject, type Json, type Literal } from '../model/index.js';
import { WORD } from '../notation/index.js';
import {
  CUSTOM_NAME,
  MOST_ALONG,
  MOST_PARTS,
  type AlongStep,
  type AcceptedInput,
  type ChosenOption,
  type ChosenValue,
  type CustomEffect,
  type Input,
  type InputRules,
  type Operand,
  type OwnComparison,
  type QueryTerms,
} from './customOperations.js';
import { inputType } from './inputText.js';
import { ObjectReading, type ObjectMembers } from './objectReading.js';

/** What is said of an input besides its name. */
const RULES = ['type', 'required', 'secret', 'default', 'equals'];

export const isLiteral = (value: Json | undefined): value is Literal =>
  typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean';

/** Reads what operations of one's own compare with, give to members, and accept. */
export class InputReading extends ObjectReading {
  protected accept(given: Json, at: string): CustomEffect | null {
    const one = this.object(given, at, ['kind', 'transition', ...RULES]);
    if (one === null) return null;
    const transition =
      one['transition'] === null
        ? null
        : this.text(one, 'transition', at, /^.+$/s, 'the identity of a transition, or null');
    const rules = this.rules(one, at);
    return rules === null ? null : { kind: 'accept', transition, ...rules };
  }

  protected accepting(members: ObjectMembers, at: string): { readonly accepts?: readonly AcceptedInput[] } {
    if (members['accepts'] === undefined) return {};
    const accepts = this.list(members['accepts'], `${at}/accepts`, MOST_PARTS, (item, to) => {
      const one = this.object(item, to, ['name', ...RULES]);
      if (one === null) return null;
      const name = this.text(one, 'name', to, CUSTOM_NAME, 'a name in camelCase');
      const rules = this.rules(one, to);
      return name === null || rules === null ? null : { name, ...rules };
    });
    return { accepts };
  }

  protected rules(one: ObjectMembers, at: string): InputRules | null {
    const type = one['type'];
    const isType = typeof type === 'string' && type.length <= 500 && inputType(type) !== null;
    if (!isType) this.report(`${at}/type`, 'options', 'Expected a scalar type, as in text(..80).');
    for (const flag of ['required', 'secret'])
      if (typeof one[flag] !== 'boolean') this.report(`${at}/${flag}`, 'type', 'Expected true or false.');
    const usual = one['default'] === undefined ? undefined : this.operand(one['default'], `${at}/default`);
    const equals =
      one['equals'] === undefined
        ? undefined
        : this.text(one, 'equals', at, /^.+$/s, 'the identity of an attribute');
    if (!isType || usual === null || equals === null) return null;
    return {
      type,
      required: one['required'] === true,
      secret: one['secret'] === true,
      ...(usual === undefined ? {} : { default: usual }),
      ...(equals === undefined ? {} : { equals }),
    };
  }

  protected chosen(given: Json, at: string): ChosenValue | null {
    const one = this.object(given, at, ['kind', 'input', 'options']);
    if (one === null) return null;
    const input = this.text(one, 'input', at, CUSTOM_NAME, 'a name in camelCase');
    const options = this.list(
      one['options'],
      `${at}/options`,
      MOST_PARTS,
      (item, to): ChosenOption | null => {
        const part = this.object(item, to, ['option', 'value']);
        if (part === null) return null;
        const option = this.text(part, 'option', to, WORD, 'a word of the notation');
        const isUnset =
          isJsonObject(part['value'] ?? null) && (part['value'] as ObjectMembers)['kind'] === 'unset';
        const value = isUnset
          ? ({ kind: 'unset' } as const)
          : this.operand(part['value'] ?? null, `${to}/value`);
        return option === null || value === null ? null : { option, value };
      },
    );
    return input === null ? null : { kind: 'chosen', input, options };
  }

  protected input(given: Json, at: string): Operand | Input | null {
    if (!isJsonObject(given) || given['kind'] !== 'input') return this.operand(given, at);
    const one = this.object(given, at, ['kind', 'name', 'default']);
    const name = one === null ? null : this.text(one, 'name', at, CUSTOM_NAME, 'a name in camelCase');
    const usual =
      given['default'] === undefined ? undefined : this.operand(given['default'], `${at}/default`);
    if (name === null || usual === null) return null;
    return usual === undefined ? { kind: 'input', name } : { kind: 'input', name, default: usual };
  }

  protected operand(given: Json, at: string): Operand | null {
    const kind = isJsonObject(given) ? given['kind'] : undefined;
    const value = isJsonObject(given) ? given['value'] : undefined;
    if (kind === 'now') return { kind };
    if (kind === 'literal' && isLiteral(value)) return { kind, value };
    this.report(
      at,
      'options',
      'Expected { "kind": "now" }, or { "kind": "literal", "value": … } with a scalar.',
    );
    return null;
  }

  protected member(one: ObjectMembers, at: string): string | null {
    return this.text(one, 'member', at, /^.+$/s, 'the identity of an attribute or a reference');
  }

  protected comparison(given: Json, at: string): OwnComparison | null {
    const one = this.object(given, at, ['member', 'operator', 'value']);
    if (one === null) return null;
    const member = this.member(one, at);
    const operator = this.option(one['operator'], `${at}/operator`, COMPARE_OPERATORS);
    const value = this.operand(one['value'] ?? null, `${at}/value`);
    return member === null || operator === null || value === null ? null : { member, operator, value };
  }

  protected steps(given: Json | undefined, at: string): readonly AlongStep[] {
    return this.list(given, at, MOST_ALONG, (item, to) => {
      const step = this.object(item, to, ['relationship', 'direction']);
      if (step === null) return null;
      const relationship = this.text(step, 'relationship', to, /^.+$/s, 'the identity of a relationship');
      const direction = this.option(step['direction'], `${to}/direction`, ['onwards', 'back'] as const);
      return relationship === null || direction === null ? null : { relationship, direction };
    });
  }

  protected order(given: Json, at: string): QueryTerms['order'] {
    return this.list(given, at, MOST_PARTS, (item, to) => {
      const one = this.object(item, to, ['member', 'descending']);
      const member = one === null ? null : this.member(one, to);
      if (one !== null && typeof one['descending'] !== 'boolean')
        this.report(`${to}/descending`, 'type', 'Expected true or false.');
      return member === null ? null : { member, descending: one?.['descending'] === true };
    });
  }
}
