import type { Contract, MemberType } from '../contract/index.js';
import { memoize, type ScalarType } from '../model/index.js';
import { asEcmaPattern } from './patterns.js';

/** Every type of a value in a contract, with what has it: members, parts of paths, parameters. */
export const scalarTypes = memoize(
  (contract: Contract): readonly { readonly of: string; readonly type: ScalarType }[] => [
    ...contract.shapes.flatMap(({ name, members }) =>
      members.flatMap((member) => {
        const type = scalarIn(member.type);
        return type === null ? [] : [{ of: `${name}.${member.name}`, type }];
      }),
    ),
    ...contract.resources.flatMap(({ segments }) =>
      segments.flatMap((segment) =>
        segment.kind === 'id' ? [{ of: `{${segment.parameter}}`, type: segment.type }] : [],
      ),
    ),
    ...contract.operations.flatMap(({ id, query }) =>
      query.flatMap((parameter) =>
        parameter.role === 'filter' || parameter.role === 'input'
          ? [{ of: `${parameter.name} of ${id}`, type: parameter.type }]
          : [],
      ),
    ),
  ],
);

function scalarIn(type: MemberType): ScalarType | null {
  switch (type.kind) {
    case 'json':
    case 'shape':
    case 'links':
    case 'page':
      return null;
    case 'list':
      return scalarIn(type.of);
    default:
      return type;
  }
}

/** The pattern that a schema has for one of the model; `null` where none says the same. */
export function publishedPattern(pattern: string): string | null {
  const said = asEcmaPattern(pattern);
  return said === null ? null : `^(?:${said})$`;
}

/** Patterns of the model by what schemas say in their place: who judges by schemas runs those, in linear time. */
export const patternsByPublished = memoize(
  (contract: Contract): ReadonlyMap<string, string> =>
    new Map(
      scalarTypes(contract).flatMap(({ type }) => {
        if (type.kind !== 'text' || type.pattern === null) return [];
        const published = publishedPattern(type.pattern);
        return published === null ? [] : [[published, type.pattern] as const];
      }),
    ),
);

/** What has a pattern that no schema says. */
export function unsaidPatterns(contract: Contract): readonly string[] {
  const unsaid = scalarTypes(contract).flatMap(({ of, type }) =>
    type.kind === 'text' && type.pattern !== null && asEcmaPattern(type.pattern) === null
      ? [`The pattern of ${of} is not said: ECMA-262 has none that accepts the same texts.`]
      : [],
  );
  return [...new Set(unsaid)];
}
