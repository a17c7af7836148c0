import type { Settings } from '../arrangement/index.js';
import type { Contract, MediaType } from '../contract/index.js';
import { valueOf, type DerivationContext } from './context.js';
import { registeredAmong } from './links/chosen.js';
import { recordEnvelope } from './recordEnvelope.js';

/** The form of answers, as it holds for all of them. */
export const representationOf = (context: DerivationContext): Contract['representation'] => ({
  mediaTypes: valueOf(context, 'mediaTypes').map((type) => MEDIA_TYPES[type]),
  links: valueOf(context, 'links'),
  linkForm: valueOf(context, 'linkForm'),
  memberLinks: valueOf(context, 'memberLinks'),
  linkMethods: valueOf(context, 'linkMethods'),
  relationBase: valueOf(context, 'relationBase'),
  unset: valueOf(context, 'unset'),
  decimalScales: valueOf(context, 'decimalScales'),
  registered: registeredAmong(context),
  record: recordEnvelope(context),
});

const MEDIA_TYPES: Readonly<Record<Settings['mediaTypes'][number], MediaType>> = {
  json: 'application/json',
  hal: 'application/hal+json',
};
