/** The `code` that the platform and the database driver give their errors; `null` for any other thing thrown. */
export function errorCode(error: unknown): string | null {
  if (typeof error !== 'object' || error === null || !('code' in error)) return null;
  return typeof error.code === 'string' ? error.code : null;
}

export const errorText = (error: unknown): string => (error instanceof Error ? error.message : String(error));
