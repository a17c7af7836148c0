import type { Arrangement, Settings } from '../arrangement/index.js';
import type { Contract, MediaType, Resource } from '../contract/index.js';
import type { Model } from '../model/index.js';
import { startDeriving, valueOf, type Deriving } from './context.js';
import { findAssumptions } from './assumptions/index.js';
import { findConstantConditions } from './findings/constantConditions.js';
import { findImpossible } from './findings/impossible.js';
import { findLeftovers } from './findings/leftovers.js';
import { findMixed } from './findings/mixed.js';
import { findShadowed } from './findings/shadowed.js';
import { findUnbounded } from './findings/unbounded.js';
import { findUnseen } from './findings/unseen.js';
import { findVerbs } from './findings/verbs.js';
import { deriveLinks } from './links/index.js';
import { structureNames } from './names/members.js';
import { securityOf } from './operations/access.js';
import { deriveOperations } from './operations/index.js';
import { placeResources } from './place/index.js';
import { deriveShapes, findTraits } from './shapes/index.js';

/**
 * What a model laid out by an arrangement implies. Pure, total and deterministic: the same input gives the
 * same contract byte for byte, and every element carries its reasons.
 */
export function derive(model: Model, arrangement: Arrangement): Contract {
  const deriving = startDeriving(model, arrangement);
  const placed = placeResources(deriving);
  const traits = findTraits(deriving);
  const shapes = deriveShapes(deriving, traits, placed);
  const operations = deriveOperations(deriving, placed, traits);
  const links = deriveLinks(deriving, placed, traits);
  findUnseen(deriving, traits, new Set(placed.flatMap(({ entity }) => entity ?? [])));
  findUnbounded(deriving, placed);
  findVerbs(deriving, placed);
  findShadowed(deriving, placed);
  findMixed(deriving, placed);
  findImpossible(deriving);
  findConstantConditions(deriving);
  findLeftovers(deriving);
  return {
    ...titleAndRoot(deriving),
    description: model.description,
    version: valueOf(deriving, 'version'),
    resources: placed.map((resource): Resource => ({ ...resource, links: links.get(resource.id) ?? [] })),
    operations,
    shapes,
    findings: deriving.findings,
    assumptions: findAssumptions(deriving),
    names: structureNames(deriving),
    representation: {
      mediaTypes: valueOf(deriving, 'mediaTypes').map((type) => MEDIA_TYPES[type]),
      links: valueOf(deriving, 'links'),
      envelope: valueOf(deriving, 'envelope'),
      linkForm: valueOf(deriving, 'linkForm'),
      relationBase: valueOf(deriving, 'relationBase'),
      unset: valueOf(deriving, 'unset'),
    },
    paging: {
      style: valueOf(deriving, 'pageStyle'),
      totals: valueOf(deriving, 'totals'),
      oversize: valueOf(deriving, 'oversize'),
    },
    versionHeader: valueOf(deriving, 'versionIn') === 'header' ? VERSION_HEADER : null,
    trailingSlash: valueOf(deriving, 'trailingSlash'),
    security: securityOf(deriving, operations),
    unknownMembers: valueOf(deriving, 'unknownMembers'),
    limits: { bodyBytes: valueOf(deriving, 'maxBodyBytes') },
  };
}

const MEDIA_TYPES: Readonly<Record<Settings['mediaTypes'][number], MediaType>> = {
  json: 'application/json',
  hal: 'application/hal+json',
};

const VERSION_HEADER = 'API-Version';

export const titleAndRoot = (deriving: Deriving): Pick<Contract, 'title' | 'root'> => ({
  title: deriving.model.name === '' ? 'Untitled design' : deriving.model.name,
  root: `${valueOf(deriving, 'basePath')}${valueOf(deriving, 'versionIn') === 'path' ? `/${valueOf(deriving, 'version')}` : ''}`,
});
