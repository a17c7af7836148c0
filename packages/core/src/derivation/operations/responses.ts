import type { Situation } from './situation.js';
import { actsOnRecord, type ResponseCase, type ResponseCode, type RuleId } from '../../contract/index.js';
import {
  memoize,
  phrase,
  storageOf,
  type Attribute,
  type Entity,
  type UniqueConstraint,
  entryOf,
} from '../../model/index.js';
import { printCondition } from '../../notation/index.js';
import type { SettingName, SettingPlace } from '../../arrangement/index.js';
import { becauseSetAt, hasOwnSettings, valueOf, type DerivationContext } from '../context.js';
import type { PlacedResource } from '../place/index.js';
import { inlineOwned } from '../shapes/index.js';
import type { ResolvedCustom } from '../customOperations/index.js';
import { changesNoRecord } from './protocol.js';
import { addActed, addDone, namesIt } from './actionResponses.js';
import { addProtocol, type Add } from './protocolResponses.js';

/** The answers of the operations of each entity by their rule: many operations answer alike. */
type Cases = Map<RuleId, ResponseCase[]>;
const shared = memoize<DerivationContext, Map<Entity | null, Cases>>(() => new Map());

const sharedBy = (context: DerivationContext, entity: Entity | null): Cases =>
  entryOf(shared(context), entity, (): Cases => new Map());

/** Every answer of an operation, in the order of their status, each with when it happens. */
export function deriveResponses(context: DerivationContext, situation: Situation): readonly ResponseCase[] {
  const { entity, verb } = situation;
  const responses: ResponseCase[] = [];
  const known = sharedBy(context, entity);
  const statements = entity === null ? [] : [entity];
  const at = { resource: situation.resource.id, verb };
  const isOwn = hasOwnSettings(context, at) || situation.own !== null;
  const make = (
    status: number,
    code: ResponseCode,
    rule: RuleId,
    when: string,
    settings: readonly SettingName[],
  ): ResponseCase => ({
    status,
    code,
    when,
    reasons: [becauseSetAt(context, rule, settings, at, ...statements)],
  });
  const add: Add = (status, code, rule, when, settings = []) => {
    if (isOwn) {
      responses.push(make(status, code, rule, when(), settings));
      return;
    }
    const told = when();
    const alike = known.get(rule);
    let response = alike?.find((one) => one.status === status && one.code === code && one.when === told);
    if (response === undefined) {
      response = make(status, code, rule, told, settings);
      if (alike === undefined) known.set(rule, [response]);
      else alike.push(response);
    }
    responses.push(response);
  };
  const noun = entity === null ? 'entry' : phrase(entity.name);
  addSuccess(situation, noun, add);
  add(
    400,
    'bad-parameter',
    'status.parameter',
    () =>
      valueOf(context, 'unknownParameters', at) === 'refused'
        ? 'A query parameter is unknown, given twice, or has a value that does not fit.'
        : 'A query parameter is given twice, or has a value that does not fit; unknown ones are ignored.',
    ['unknownParameters'],
  );
  addProtocol(context, situation, noun, add);
  if (situation.hasBody) addBodyProblems(context, situation, at, add);
  const missing = whenMissing(situation, noun);
  // When something is missing depends on the path, so this answer is not shared.
  if (missing !== null) responses.push(make(404, 'missing', 'status.missing', missing, []));
  add(
    406,
    'not-acceptable',
    'status.not-acceptable',
    () => 'Accept rules out every media type that is offered.',
  );
  addConflicts(context, situation, noun, add);
  return responses.sort((a, b) => a.status - b.status);
}

function addBodyProblems(context: DerivationContext, { verb }: Situation, at: SettingPlace, add: Add): void {
  add(400, 'malformed', 'status.malformed', () => 'The body is not JSON, or names a member twice.');
  const invalid = 'A member is missing, unknown or does not fit, or points at nothing; all errors at once.';
  add(valueOf(context, 'invalidStatus', at), 'invalid', 'status.invalid', () => invalid, [
    'invalidStatus',
    'unknownMembers',
  ]);
  if (verb === 'change')
    add(409, 'patch', 'status.patch', () => 'A test of a JSON Patch fails, or a path of it is not there.');
  const limit = valueOf(context, 'maxBodyBytes');
  add(413, 'too-large', 'status.too-large', () => `The body is larger than ${limit} bytes.`, [
    'maxBodyBytes',
  ]);
  add(415, 'media-type', 'status.media-type', () => 'Content-Type is absent or not accepted here.');
}

function addConflicts(context: DerivationContext, situation: Situation, noun: string, add: Add): void {
  const { verb } = situation;
  const written = situation.written;
  const isTaken = written !== null && canBeTaken(context, written, situation.own !== null);
  if (canCollide(situation) && (isTaken || situation.holdsOthers)) {
    add(
      409,
      'conflict',
      'status.conflict',
      () => 'A value that must be unique is taken; the answer names the attributes.',
    );
  }
  const { own } = situation;
  if (own !== null && fixesReference(own) && !isTaken)
    add(409, 'conflict', 'status.conflict', () => 'What it refers to is not there any more.');
  if (own !== null && actsOnRecord(own.custom) && own.custom.when.length > 0)
    add(409, 'state', 'status.condition', () => `The condition does not hold now: ${conditionText(own)}.`);
  if (verb === 'transition') {
    const when = `The state of the ${noun}, or its condition, does not allow it now; the answer says what is allowed.`;
    add(409, 'state', 'status.state', () => when);
  }
  if (situation.canMove) {
    const when = `No transition leads from the state of the ${noun} to the one in the body, or its condition does not hold.`;
    add(409, 'state', 'place.change', () => when);
  }
  if (namesItsKey(situation)) {
    add(409, 'key-mismatch', 'status.key-mismatch', () => 'The body names another key than the path does.');
  }
  if (verb === 'remove' && situation.removalCanBeRefused) {
    add(409, 'restricted', 'status.restricted', () => `Others need the ${noun}; the answer names them.`);
  }
}

/** A write of the record itself can meet a value that is taken; one of a pair cannot. */
const canCollide = ({ hasBody, verb, resource, own }: Situation): boolean =>
  !changesNoRecord(verb, own) &&
  ((hasBody && resource.kind !== 'pair') || verb === 'transition' || verb === 'custom');

function addSuccess(situation: Situation, noun: string, add: Add): void {
  const { verb, resource } = situation;
  switch (verb) {
    case 'entry':
      add(200, 'ok', 'status.ok', () => 'Always: the links to everything that can be reached first.');
      return;
    case 'list':
      add(200, 'ok', 'status.ok', () => `The page of records asked for; empty beyond the end.`);
      return;
    case 'read':
      if (situation.fixed !== null) add(200, 'ok', 'operation.fixed', () => 'Always.');
      else if (resource.kind === 'aggregate')
        add(200, 'ok', 'operation.aggregate', () => 'What the records come to; null where nothing is taken.');
      else if (resource.kind === 'query' || (resource.kind !== 'pair' && !resource.canonical))
        add(
          200,
          'ok',
          'status.elsewhere',
          () => `The ${noun} is there. Content-Location names its own address.`,
        );
      else add(200, 'ok', 'status.ok', () => `The ${noun} is there.`);
      return;
    case 'create':
      addCreated(situation, noun, add);
      return;
    case 'replace':
      addReplaced(situation, noun, add);
      return;
    case 'change':
      add(200, 'ok', 'status.ok', () => `The ${noun} is changed; the body is the ${noun} as it is now.`);
      return;
    case 'remove': {
      const isShown = situation.answer === 'record';
      const body = isShown ? `; the body is the ${noun} as it was` : '';
      const when = `The ${noun} is gone, with everything it owned${body}.`;
      add(isShown ? 200 : 204, 'removed', 'status.removed', () => when, ['removeAnswers']);
      return;
    }
    case 'attach':
    case 'detach':
      addPairing(situation, noun, add);
      return;
    case 'custom':
      addActed(situation, noun, add);
      return;
    case 'transition':
      addDone(situation, `The ${noun} has moved`, noun, add);
      return;
  }
}

function addCreated(situation: Situation, noun: string, add: Add): void {
  const { answer } = situation;
  const settings = ['createAnswers'] as const;
  if (answer === 'see other') {
    add(303, 'created', 'status.created', () => `The ${noun} is stored; Location names it.`, settings);
    return;
  }
  const body = answer === 'record' ? `the body is the ${noun}` : 'there is no body';
  const named = namesIt(situation);
  const when = named === '' ? `The ${noun} is stored; ${body}.` : `The ${noun} is stored.${named}; ${body}.`;
  add(201, 'created', 'status.created', () => when, settings);
}

function addReplaced(situation: Situation, noun: string, add: Add): void {
  const { fillsSlot, createsItem, answer } = situation;
  if (answer === 'record')
    add(200, 'ok', 'status.ok', () => `The ${noun} is replaced; the body is the ${noun} as it is now.`, [
      'replaceAnswers',
    ]);
  else add(204, 'ok', 'status.ok', () => `The ${noun} is replaced.`, ['replaceAnswers']);
  if (fillsSlot)
    add(201, 'created', 'operation.put-creates', () => `The slot was empty and now holds the ${noun}.`);
  if (!createsItem) return;
  const named = namesIt(situation);
  const when = `Nothing had this key: the ${noun} is stored under it.${named === '' ? '' : `${named}.`}`;
  add(201, 'created', 'operation.put-creates', () => when, ['putCreates']);
}

function addPairing({ verb, carries, isAddressed }: Situation, noun: string, add: Add): void {
  if (verb === 'detach') {
    add(204, 'removed', 'status.removed', () => 'They are no longer paired; both are still there.');
    return;
  }
  add(
    201,
    'created',
    'status.created',
    () =>
      `They are paired now.${isAddressed ? ' Location names the pair, the' : ' The'} body is the ${noun}.`,
  );
  if (carries)
    add(200, 'ok', 'status.ok', () => 'They were paired already; what the pair carries is replaced.');
  else add(204, 'attached', 'status.attached', () => 'They were paired already.');
}

function whenMissing(situation: Situation, noun: string): string | null {
  const things = missingThings(situation.resource);
  if (situation.own?.custom.kind === 'find')
    return things === null ? `There is no such ${noun} now.` : `${things}; or there is no such ${noun} now.`;
  const canBeEmpty =
    situation.resource.kind === 'reference' ||
    (situation.optionalSlot && !(situation.fillsSlot && situation.verb === 'replace'));
  if (things === null) return canBeEmpty ? `There is no ${noun} here.` : null;
  if (situation.resource.kind === 'pair' && situation.verb !== 'attach')
    return `${things}; or they are not paired.`;
  if (situation.resource.kind === 'reference') return `${things}; or it has no ${noun}.`;
  return `${things}${canBeEmpty ? `, or it has no ${noun}` : ''}.`;
}

/** What an address may name in vain; the same for all operations of a resource. */
const missingThings = memoize((resource: PlacedResource): string | null => {
  const ids = resource.segments.flatMap((segment) => (segment.kind === 'id' ? [phrase(segment.entity)] : []));
  const [only = ''] = ids;
  return ids.length === 0
    ? null
    : ids.length === 1
      ? `There is no such ${only}`
      : `There is no such ${ids.join(' or ')}, or one belongs to another owner`;
});

const namesItsKey = ({ verb, resource }: Situation): boolean =>
  resource.kind === 'item' && (verb === 'replace' || verb === 'change');

/** Numbers that the server counts up to a limit. */
const canRunOut = ({ generated, type }: Attribute): boolean =>
  generated && type.kind === 'integer' && type.max !== null;

/** Whether a write can meet a value that is taken: by what the store itself keeps unique, whatever that is. */
function canBeTaken(context: DerivationContext, entity: Entity, intoSlot: boolean): boolean {
  return writtenWith(context, entity).some((written) => {
    const storage = storageOf(context.model).byName.get(written.name);
    const isMet = (constraint: UniqueConstraint): boolean =>
      constraint === storage?.keyConstraint
        ? !storage.key.generated
        : constraint !== storage?.slotConstraint || intoSlot;
    return storage?.uniques.some(isMet) === true || written.attributes.some(canRunOut);
  });
}

/** An entity with everything that is written in its body: what it owns one of, and what stands inside it. */
function writtenWith(context: DerivationContext, entity: Entity): readonly Entity[] {
  const found = new Map([[entity.name, entity]]);
  for (const { name } of found.values()) {
    const slots = (context.index.ownedBy.get(name) ?? []).filter(({ cardinality }) => cardinality === 'one');
    for (const { to } of [...slots, ...inlineOwned(context, name)]) {
      const inner = context.index.entities.get(to);
      if (inner !== undefined) found.set(to, inner);
    }
  }
  return [...found.values()];
}

const fixesReference = ({ custom }: ResolvedCustom): boolean =>
  actsOnRecord(custom) && custom.values.some(({ field }) => field.kind === 'reference');

const conditionText = ({ custom }: ResolvedCustom): string =>
  actsOnRecord(custom) ? printCondition(custom.when) : '';
