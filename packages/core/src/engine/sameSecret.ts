/** Stands for what nobody has, where nobody was found to compare with. */
export const NOBODYS_SECRET = 'nobody';

/**
 * Whether two texts are the same. Reads all of both whatever they are, so that how long it takes does not tell how far
 * they agree.
 */
export function sameSecret(given: string, known: string): boolean {
  let differences = given.length ^ known.length;
  const length = Math.max(given.length, known.length);
  // Behind its end a text has no characters: NaN, which counts as 0.
  for (let at = 0; at < length; at++) differences |= given.charCodeAt(at) ^ known.charCodeAt(at);
  return differences === 0;
}
