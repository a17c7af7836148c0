import type { OwnLink } from '../ownLinks.js';
import { ownLinksSchema } from '../ownLinksSchema.js';
import { readOwnLinks } from '../readOwnLinks.js';
import { said, withItem, type ArrangementPart } from './part.js';

/** A link in the place of the one of its id, or at the end; `null` takes the one of an id away. */
export interface OwnLinkEdit {
  readonly id: string;
  readonly link: OwnLink | null;
}

/** Links that no rule derives. */
export const OWN_LINKS_PART: ArrangementPart<readonly OwnLink[], OwnLinkEdit> = {
  empty: [],
  read: readOwnLinks,
  schema: ownLinksSchema,
  decided: (links) =>
    links.map(({ id, relation, resource, target, when }) => [
      `Link ${id}`,
      `${relation} of ${resource}: ${said({ ...target, when })}`,
    ]),
  edit: (known, { id, link }) => withItem(known, id, link),
};
