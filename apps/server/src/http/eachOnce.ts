import { ValidateBy, type ValidationOptions } from 'class-validator';

/** Says that no item of an array stands twice, in time in proportion to it. */
export const EachOnce = (options: ValidationOptions): PropertyDecorator =>
  ValidateBy(
    {
      name: 'eachOnce',
      validator: { validate: (value) => Array.isArray(value) && new Set(value).size === value.length },
    },
    options,
  );
