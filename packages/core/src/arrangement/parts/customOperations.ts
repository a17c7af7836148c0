import type { CustomOperation } from '../customOperations.js';
import { customOperationsSchema } from '../customOperationsSchema.js';
import { readCustomOperations } from '../readCustomOperations.js';
import { said, withItem, type ArrangementPart } from './part.js';

/** An operation in the place of the one of its id, or at the end; `null` takes the one of an id away. */
export interface CustomOperationEdit {
  readonly id: string;
  readonly operation: CustomOperation | null;
}

/** Operations that no rule derives. */
export const CUSTOM_OPERATIONS_PART: ArrangementPart<readonly CustomOperation[], CustomOperationEdit> = {
  empty: [],
  read: readCustomOperations,
  schema: customOperationsSchema,
  decided: (customOperations) =>
    customOperations.map(({ id, name, entity, effect }) => [
      `Operation ${id}`,
      `${name} of ${entity ?? 'the entry'}: ${said(effect)}`,
    ]),
  edit: (known, { id, operation }) => withItem(known, id, operation),
};
