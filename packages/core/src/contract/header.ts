/** A header that a request may carry, or that an answer says. */
export interface HeaderUse {
  readonly name: string;
  /** What it is filed by where something is said of it; outlives the names that settings give. */
  readonly subject: string;
  readonly description: string;
  readonly type: 'text' | 'uri' | 'count' | { readonly options: readonly string[] } | 'preference';
  readonly isRequired: boolean;
}

/** A header: some text that need not be there, filed by its name, where nothing else is said of it. */
export const header = (
  name: string,
  description: string,
  { type = 'text', isRequired = false, subject = name.toLowerCase() }: Partial<HeaderUse> = {},
): HeaderUse => ({ name, subject, description, type, isRequired });
