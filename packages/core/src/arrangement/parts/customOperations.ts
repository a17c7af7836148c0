import type { CustomOperation } from '../customOperations.js';
import { customOperationsSchema } from '../customOperationsSchema.js';
import { readCustomOperations } from '../readCustomOperations.js';
import { said, type ArrangementPart } from './part.js';

/** Operations that no rule derives. */
export const CUSTOM_OPERATIONS_PART: ArrangementPart<readonly CustomOperation[]> = {
  empty: [],
  read: readCustomOperations,
  schema: customOperationsSchema,
  decided: (customOperations) =>
    customOperations.map(({ id, name, entity, effect }) => [
      `Operation ${id}`,
      `${name} of ${entity}: ${said(effect)}`,
    ]),
};
