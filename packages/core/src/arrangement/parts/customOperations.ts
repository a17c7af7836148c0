import type { CustomOperation } from '../customs.js';
import { customsSchema } from '../customsSchema.js';
import { readCustoms } from '../readCustoms.js';
import { said, type Part } from './part.js';

/** Operations of one's own. */
export const CUSTOMS_PART: Part<readonly CustomOperation[]> = {
  empty: [],
  read: readCustoms,
  schema: customsSchema,
  decided: (customs) =>
    customs.map(({ id, name, entity, effect }) => [
      `Operation ${id}`,
      `${name} of ${entity}: ${said(effect)}`,
    ]),
};
