/** Who may carry out an operation. */
export type Access =
  | { readonly kind: 'anonymous' }
  | { readonly kind: 'authenticated' }
  | { readonly kind: 'role'; readonly role: string };

/** Whether whoever is let in by one is let in by the other. */
export function admits(one: Access, other: Access): boolean {
  if (other.kind === 'anonymous') return true;
  if (other.kind === 'authenticated') return one.kind !== 'anonymous';
  return one.kind === 'role' && one.role === other.role;
}

/** Basic (RFC 7617), Bearer (RFC 6750), or a key in a header. */
export type SecurityScheme = 'basic' | 'bearer' | 'key';
