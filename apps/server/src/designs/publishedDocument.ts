import type { Publication } from '@isomeros/api';
import {
  isPublicationName,
  OLDER_NAMES,
  PUBLICATION_FORMATS,
  PUBLICATION_NAMES,
  REFERENCE_POLICY,
  type PublicationName,
} from '@isomeros/core/publication';
import type { Response } from 'express';
import { ApiProblem } from '../http/problem.js';

/** The format a document is asked for in, by the name of its file. */
export function formatNamed(name: string): PublicationName {
  if (isPublicationName(name)) return name;
  throw new ApiProblem(
    'not-found',
    `There is no ${name} of a contract; there are ${PUBLICATION_NAMES.join(', ')}.`,
  );
}

/** The same by what it was called before formats named their versions. */
export const documentNamed = (name: string): PublicationName =>
  Object.hasOwn(OLDER_NAMES, name) ? OLDER_NAMES[name as keyof typeof OLDER_NAMES] : formatNamed(name);

/** Formats as they are listedFormats. `hrefOf`: where the document of each is. */
export const listedFormats = (
  unsaid: readonly { readonly format: PublicationName; readonly cannotSay: readonly string[] }[],
  hrefOf: (format: PublicationName) => string,
): readonly Publication[] =>
  unsaid.map(({ format, cannotSay }) => {
    const { title, mediaType } = PUBLICATION_FORMATS[format];
    return { format, title, mediaType, href: hrefOf(format), cannotSay };
  });

/** Sends a document as its media type says, which has a charset only where it may have one (RFC 8259 §11). */
export function sendDocument(response: Response, as: PublicationName, text: string): void {
  // The page has a script of its own, which those of the application may not have.
  if (as === 'reference.html') response.setHeader('Content-Security-Policy', REFERENCE_POLICY);
  response.setHeader('Content-Type', PUBLICATION_FORMATS[as].mediaType).send(Buffer.from(text));
}
