import {
  indexContract,
  isOneRecord,
  takesEnveloped,
  type Contract,
  type Shape,
} from '../../contract/index.js';
import type { Json } from '../../model/index.js';

type Schema = { readonly [keyword: string]: Json };

/** The name of a shape as it stands in a member of a body. */
export const envelopedName = (shape: string): string => `${shape}.enveloped`;

/** Whether a shape is answered in a member of the body. */
export function isEnveloped(contract: Contract, name: string): boolean {
  const shape = indexContract(contract).shapes.get(name);
  return contract.representation.record !== null && shape !== undefined && isOneRecord(shape);
}

/** Every body that has one record in a member, under its name. `schemaOf`: the schema of a shape with some members. */
export function envelopeSchemas(
  contract: Contract,
  schemaOf: (shape: Shape) => Schema,
  reference: (name: string) => Schema,
): readonly (readonly [string, Schema])[] {
  const envelope = contract.representation.record;
  if (envelope === null) return [];
  const { shapes } = indexContract(contract);
  const { member, links, constants } = envelope;
  const beside = constants.map(({ name, value }) => [name, { enum: [value] }] as const);
  const isBeside = links === 'beside';
  const answered = contract.shapes.filter(isOneRecord).map((shape): readonly [string, Schema] => {
    const own = shape.members.find(({ source }) => source.kind === 'links');
    const without = { ...shape, members: shape.members.filter((one) => one !== own) };
    const inside = isBeside && own !== undefined ? schemaOf(without) : reference(shape.name);
    const around = isBeside && own !== undefined ? [[own.name, reference('links')] as const] : [];
    return [
      envelopedName(shape.name),
      {
        type: 'object',
        properties: Object.fromEntries([[member, inside], ...around, ...beside]),
        required: [member, ...around.map(([name]) => name), ...constants.map(({ name }) => name)],
      },
    ];
  });
  const sent = new Set(
    contract.operations.flatMap((operation) =>
      takesEnveloped(contract, operation) === 'never' ? [] : (operation.accepts ?? []),
    ),
  );
  const patched = changing(contract);
  const isWhole = (name: string): boolean => envelope.of === 'answers' || !patched.has(name);
  const bodies = [...sent].flatMap((name): (readonly [string, Schema])[] => {
    const shape = shapes.get(name);
    if (shape === undefined) return [];
    const ignored = { readOnly: true };
    const around = [contract.names.links, ...constants.map((one) => one.name)].map(
      (one) => [one, ignored] as const,
    );
    const isClosed = envelope.of === 'bodies' && contract.unknownMembers === 'refused';
    return [
      [
        envelopedName(name),
        {
          type: 'object',
          properties: Object.fromEntries([...around, [member, reference(name)]]),
          ...(isWhole(name) ? { required: [member] } : {}),
          ...(isClosed ? { additionalProperties: false } : {}),
        },
      ],
    ];
  });
  return [...answered, ...bodies];
}

/** The shapes of merge patches, which may leave the record out. */
const changing = ({ operations }: Contract): ReadonlySet<string> =>
  new Set(operations.flatMap(({ verb, accepts }) => (verb === 'change' ? (accepts ?? []) : [])));
