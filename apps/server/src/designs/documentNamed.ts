import { isPublicationName, PUBLICATION_NAMES, type PublicationName } from '@isomeros/core/publication';
import { ApiProblem } from '../http/problem.js';

/** The format a document is asked for in, by the name of its file. */
export function documentNamed(name: string): PublicationName {
  if (isPublicationName(name)) return name;
  throw new ApiProblem(
    'not-found',
    `There is no ${name} of a contract; there are ${PUBLICATION_NAMES.join(', ')}.`,
  );
}
