import type { Attribute, AttributeType } from './types.js';

/** An attribute of a type and nothing else; what is known besides is laid over it. */
export const plainAttribute = (
  id: string,
  name: string,
  type: AttributeType,
  known: Partial<Attribute> = {},
): Attribute => ({
  kind: 'attribute',
  id,
  name,
  type,
  description: null,
  comments: [],
  required: false,
  unique: false,
  uniqueWithin: null,
  key: null,
  generated: false,
  touched: false,
  fixed: false,
  readOnly: false,
  writeOnly: false,
  defaultValue: null,
  example: null,
  lifeCycle: null,
  computed: null,
  ...known,
});
