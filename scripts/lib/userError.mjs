/** An end that the person can do something about: printed without a stack. */
export class UserError extends Error {}
