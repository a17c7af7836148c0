import {
  operationKey,
  resolvePlacement,
  setting,
  type Arrangement,
  type PlacementFor,
  type SettingName,
  type SettingPlace,
  type Settings,
  type SubjectKind,
} from '../arrangement/index.js';
import type { Finding, Reason, RuleId, Source } from '../contract/index.js';
import {
  IMPLICIT_ID,
  indexModel,
  isImplicitId,
  type Entity,
  type Model,
  type ModelIndex,
} from '../model/index.js';

/** What every rule reads while one contract is derived. */
export interface DerivationContext {
  readonly model: Model;
  readonly index: ModelIndex;
  readonly arrangement: Arrangement;
  readonly findings: Finding[];
  /** Whether anything was chosen for single resources or operations: mostly not, and then nobody looks for it. */
  readonly hasNearSettings: boolean;
  /** What holds wherever nothing is chosen near, each looked up once: settings are read for every operation. */
  readonly farSettings: Map<SettingName, Source & { readonly kind: 'setting' }>;
}

export function startDerivation(model: Model, arrangement: Arrangement): DerivationContext {
  const { resources, operations } = arrangement;
  const hasNearSettings = Object.keys(resources).length + Object.keys(operations).length > 0;
  return {
    model,
    index: indexModel(model),
    arrangement,
    findings: [],
    hasNearSettings,
    farSettings: new Map(),
  };
}

export const valueOf = <Name extends SettingName>(
  context: DerivationContext,
  name: Name,
  at?: SettingPlace,
): Settings[Name] =>
  at === undefined || !context.hasNearSettings
    ? (farSetting(context, name).value as Settings[Name])
    : setting(context.arrangement, name, at).value;

function farSetting(context: DerivationContext, name: SettingName): Source & { readonly kind: 'setting' } {
  let source = context.farSettings.get(name);
  if (source === undefined) {
    source = { kind: 'setting', name, ...setting(context.arrangement, name) };
    context.farSettings.set(name, source);
  }
  return source;
}

/** Whether something was chosen for just this resource or operation. */
export function hasOwnSettings(
  { arrangement, hasNearSettings }: DerivationContext,
  { resource, verb }: SettingPlace,
): boolean {
  if (!hasNearSettings) return false;
  return (
    Object.hasOwn(arrangement.resources, resource) ||
    (verb !== undefined && Object.hasOwn(arrangement.operations, operationKey(resource, verb)))
  );
}

/** Where the arrangement has something. */
export const placementOf = <Kind extends SubjectKind>(
  { arrangement }: DerivationContext,
  kind: Kind,
  id: string,
): PlacementFor<Kind> => resolvePlacement(arrangement.placements, kind, id).place;

/** A reason that cites statements and where something was placed. */
export function becausePlaced(
  { arrangement }: DerivationContext,
  rule: RuleId,
  kind: SubjectKind,
  subject: string,
  ...statements: readonly { readonly id: string }[]
): Reason {
  const source: Source = {
    kind: 'placement',
    subject,
    ...resolvePlacement(arrangement.placements, kind, subject),
  };
  return { rule, because: [...because(rule, ...statements).because, source] };
}

/** A reason that cites model statements by identity. */
export function because(rule: RuleId, ...statements: readonly { readonly id: string }[]): Reason {
  const [first] = statements;
  if (first === undefined) return { rule, because: [] };
  if (statements.length === 1) return { rule, because: [{ kind: 'statement', id: statementOf(first.id) }] };
  const cited = new Set(statements.map(({ id }) => statementOf(id)));
  return { rule, because: [...cited].map((id) => ({ kind: 'statement', id })) };
}

/** The statement an element comes from: an implicit id has none of its own, and comes from its entity. */
const statementOf = (id: string): string => (isImplicitId(id) ? id.slice(0, -IMPLICIT_ID.length) : id);

/** A reason that cites settings, after any statements. */
export function becauseSet(
  context: DerivationContext,
  rule: RuleId,
  names: readonly SettingName[],
  ...statements: readonly { readonly id: string }[]
): Reason {
  return becauseSetAt(context, rule, names, undefined, ...statements);
}

/** The same with settings as they hold for one resource or operation. */
export function becauseSetAt(
  context: DerivationContext,
  rule: RuleId,
  names: readonly SettingName[],
  at: SettingPlace | undefined,
  ...statements: readonly { readonly id: string }[]
): Reason {
  const cited: Source[] = [...because(rule, ...statements).because];
  for (const name of names) cited.push(settingSource(context, name, at));
  return { rule, because: cited };
}

/** A setting as a source. Where nothing is chosen near, one object stands for it everywhere. */
function settingSource(context: DerivationContext, name: SettingName, at: SettingPlace | undefined): Source {
  return at === undefined || !context.hasNearSettings
    ? farSetting(context, name)
    : { kind: 'setting', name, ...setting(context.arrangement, name, at) };
}

export function entityNamed(context: DerivationContext, name: string): Entity {
  const entity = context.index.entities.get(name);
  if (entity === undefined) throw new Error(`The model has no entity ${name}.`);
  return entity;
}
