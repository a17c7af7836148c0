import { ValidateNested, type ValidationOptions } from 'class-validator';

/** A class whose decorators say what a body, a part of one, or a query may hold. */
export type InputClass = new () => object;

const nestedClasses = new Map<object, Map<string, () => InputClass>>();

/** Says that a member is an object of its own class, or with `each` an array of them. */
export function Nested(of: () => InputClass, options: ValidationOptions = {}): PropertyDecorator {
  const validate = ValidateNested(options);
  return (prototype, property) => {
    const members = nestedClasses.get(prototype) ?? new Map<string, () => InputClass>();
    nestedClasses.set(prototype, members.set(String(property), of));
    validate(prototype, property);
  };
}

/** The class of a member that is an object of its own; `null` where it is none. */
export function nestedClass(of: InputClass, member: string): InputClass | null {
  let prototype: unknown = of.prototype;
  while (typeof prototype === 'object' && prototype !== null) {
    const found = nestedClasses.get(prototype)?.get(member);
    if (found !== undefined) return found();
    prototype = Object.getPrototypeOf(prototype);
  }
  return null;
}
