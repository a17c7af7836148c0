/** Who may carry out an operation. */
export type Access =
  | { readonly kind: 'anonymous' }
  | { readonly kind: 'authenticated' }
  | { readonly kind: 'role'; readonly role: string };
