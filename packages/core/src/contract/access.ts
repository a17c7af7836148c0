/** Who may carry out an operation. */
export type Access =
  | { readonly kind: 'anonymous' }
  | { readonly kind: 'authenticated' }
  | { readonly kind: 'role'; readonly role: string };

/** Basic (RFC 7617), Bearer (RFC 6750), or a key in a header. */
export type SecurityScheme = 'basic' | 'bearer' | 'key';
