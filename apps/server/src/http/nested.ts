import { ValidateNested, type ValidationOptions } from 'class-validator';

/** A class whose decorators say what a body, or a part of one, may hold. */
export type BodyClass = new () => object;

const nestedClasses = new Map<object, Map<string, () => BodyClass>>();

/** Says that a member is an object of its own class, or with `each` an array of them. */
export function Nested(of: () => BodyClass, options: ValidationOptions = {}): PropertyDecorator {
  const validate = ValidateNested(options);
  return (prototype, property) => {
    const members = nestedClasses.get(prototype) ?? new Map<string, () => BodyClass>();
    nestedClasses.set(prototype, members.set(String(property), of));
    validate(prototype, property);
  };
}

/** The class of a member that is an object of its own; `null` where it is none. */
export function nestedClass(of: BodyClass, member: string): BodyClass | null {
  let prototype: unknown = of.prototype;
  while (typeof prototype === 'object' && prototype !== null) {
    const found = nestedClasses.get(prototype)?.get(member);
    if (found !== undefined) return found();
    prototype = Object.getPrototypeOf(prototype);
  }
  return null;
}
