import type { Arrangement } from '../arrangement/index.js';
import type { Contract } from '../contract/index.js';
import { appendAll, type Model } from '../model/index.js';
import { startDerivation, valueOf, type DerivationContext } from './context.js';
import { documented, saidTitle } from './documentation/index.js';
import { findAssumptions } from './assumptions/index.js';
import { idleInputs } from './customOperations/index.js';
import { findConstantConditions } from './findings/constantConditions.js';
import { findImpossible } from './findings/impossible.js';
import { findUnused } from './findings/unused.js';
import { findLeftOut } from './findings/leftOut.js';
import { findKeptPlurals } from './findings/keptPlurals.js';
import { findMixed } from './findings/mixed.js';
import { findShadowed } from './findings/shadowed.js';
import { findUnbounded } from './findings/unbounded.js';
import { findNeverReturned } from './findings/neverReturned.js';
import { findTelling } from './findings/telling.js';
import { findVerbs } from './findings/verbs.js';
import { withCarriedLinks, withRelations } from './links/chosen.js';
import { linkedResources } from './links/linked.js';
import { structureNameFindings, structureNames } from './names/members.js';
import { securityOf } from './operations/access.js';
import { deriveOperations } from './operations/index.js';
import { usualForm, variantShapes } from './operations/forms.js';
import { Offers } from './operations/offers.js';
import { placeResources } from './place/index.js';
import { representationOf } from './representation.js';
import { deriveShapes, findTraits, withInputsOfPut } from './shapes/index.js';

/**
 * What a model laid out by an arrangement implies. Pure, total and deterministic: the same input gives the
 * same contract byte for byte, and every element carries its reasons.
 */
export function derive(model: Model, arrangement: Arrangement): Contract {
  const context = startDerivation(model, arrangement);
  const placed = placeResources(context);
  appendAll(context.findings, structureNameFindings(context));
  const traits = findTraits(context);
  const shapes = deriveShapes(context, traits, placed);
  const offers = new Offers(context, placed);
  const operations = deriveOperations(context, offers, traits);
  const resources = linkedResources(context, offers, traits, operations);
  findNeverReturned(context, traits, new Set(placed.flatMap(({ entity }) => entity ?? [])));
  findTelling(context, traits, resources, operations);
  findUnbounded(context, offers);
  findVerbs(context, placed);
  findLeftOut(context, offers);
  findShadowed(context, placed);
  findMixed(context, placed);
  findKeptPlurals(context);
  findImpossible(context);
  appendAll(context.findings, idleInputs(context));
  findConstantConditions(context);
  findUnused(context);
  return documented(context, {
    ...titleAndRoot(context),
    version: valueOf(context, 'version'),
    resources,
    operations,
    shapes: withCarriedLinks(
      context,
      withRelations(
        [...withInputsOfPut(shapes, operations), ...variantShapes(context, shapes, operations)],
        resources,
      ),
      resources,
    ),
    assumptions: findAssumptions(context),
    names: structureNames(context),
    representation: representationOf(context),
    paging: usualForm(context),
    totalHeader: valueOf(context, 'totalHeader'),
    moreHeader: valueOf(context, 'moreHeader'),
    versionHeader: valueOf(context, 'versionIn') === 'header' ? VERSION_HEADER : null,
    trailingSlash: valueOf(context, 'trailingSlash'),
    security: securityOf(context, operations),
    unknownMembers: valueOf(context, 'unknownMembers'),
    limits: { bodyBytes: valueOf(context, 'maxBodyBytes') },
  });
}

const VERSION_HEADER = 'API-Version';

export const titleAndRoot = (context: DerivationContext): Pick<Contract, 'title' | 'root'> => ({
  title: saidTitle(context) ?? (context.model.name === '' ? 'Untitled design' : context.model.name),
  root: `${valueOf(context, 'basePath')}${valueOf(context, 'versionIn') === 'path' ? `/${valueOf(context, 'version')}` : ''}`,
});
