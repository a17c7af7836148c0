import {
  CHOOSABLE_NAMES,
  findArrangement,
  hasLevel,
  placeOfEffect,
  type ChoosableSetting,
  type CustomEffect,
  type CustomOperation,
  type CustomPlace,
} from '@isomeros/core/arrangement';
import type { Verb } from '@isomeros/core/contract';
import { pluralSubject } from '@isomeros/core/arrangement';
import { indexModel, plural } from '@isomeros/core/model';
import { useState } from 'react';
import { EffectMark } from '../app/parts/EffectMark.js';
import { indentJson } from '../app/parts/json.js';
import type { OutlineRow } from '../app/parts/outlineRows.js';
import { useAppSelector } from '../app/store.js';
import { arrangementName } from '../design/viewSlice.js';
import { CustomOperations } from './CustomOperations.js';
import { ExposureGrid } from './ExposureGrid.js';
import { LinkTable } from './LinkTable.js';
import { ListPanel } from './ListPanel.js';
import { OfferPanel } from './OfferPanel.js';
import { FindingsHere } from './FindingsHere.js';
import { SettingRows } from './SettingRows.js';
import { WhyHere } from './WhyHere.js';
import { WordRow } from './WordRow.js';
import { useExample } from '../design/useExample.js';
import { PathText } from '../app/parts/PathText.js';
import { Explained } from '../app/help/Explained.js';

interface Props {
  readonly row: OutlineRow | undefined;
  readonly root: string;
  /** Whether the reasons are shown; stays from path to path. */
  readonly asksWhy: boolean;
  readonly onAskWhy: (asks: boolean) => void;
  /** Whether its links are unfolded; stays as well. */
  readonly showsLinks: boolean;
  readonly onShowLinks: (shows: boolean) => void;
  readonly onStatement: (line: number) => void;
}

const NO_OPERATIONS: readonly CustomOperation[] = [];

/** The chosen path: what is set just for it, why it is there, and an exchange that changes as the settings do. */
export function PathPanel(props: Props): React.JSX.Element {
  const { row, root, asksWhy, onAskWhy, showsLinks, onShowLinks, onStatement } = props;
  const [chosen, setChosen] = useState<string | null>(null);
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const customs = findArrangement(choices, arrangement)?.customOperations ?? NO_OPERATIONS;
  if (row === undefined) return <section className="panel" />;
  const operation = row.operations.find(({ id }) => id === chosen);
  const shown = operation ?? row.operations[0];
  const own = customs.find(({ id }) => id === row.resource.custom);
  const on = own === undefined ? customsOn(row) : placeOfEffect(own.effect);
  const effect = own?.effect.kind ?? null;
  const level = operation === undefined ? 'resource' : 'operation';
  return (
    <section className="panel path-panel" aria-label="The chosen path">
      <header className="panel-head">
        <PathText path={root + row.resource.path} />
        <span className="end">
          <Explained by="arrange.why">
            <button
              type="button"
              className="text-button"
              aria-expanded={asksWhy}
              onClick={() => onAskWhy(!asksWhy)}
            >
              Why
            </button>
          </Explained>
        </span>
      </header>
      <div className="panel-body">
        <Scope row={row} chosen={operation?.id ?? null} onChoose={setChosen} />
        {asksWhy && <WhyHere row={row} operation={operation} onStatement={onStatement} />}
        <FindingsHere row={row} onStatement={onStatement} />
        {operation === undefined && <OfferPanel row={row} />}
        {operation === undefined && row.resource.entity !== null && showsRecords(row) && (
          <GoesInAndOut entity={row.resource.entity} onStatement={onStatement} />
        )}
        {operation === undefined && on !== null && (
          <CustomOperations entity={row.resource.entity} on={on} onStatement={onStatement} />
        )}
        {operation === undefined && answersList(row) && <ListPanel resource={row.resource.id} />}
        {operation === undefined && (
          <LinkTable
            resource={row.resource.id}
            isUnfolded={showsLinks}
            onUnfold={onShowLinks}
            onStatement={onStatement}
          />
        )}
        <h3 className="section-head">
          Settings of this path
          <span className="end quiet">
            {operation === undefined ? 'for every operation of the path' : `for ${operation.id} alone`}
          </span>
        </h3>
        {operation === undefined && row.resource.word !== null && (
          <WordRow subject={row.resource.word} word={lastWord(row)} title="Path word" />
        )}
        {operation === undefined && row.resource.kind === 'collection' && row.resource.entity !== null && (
          <PluralRow entity={row.resource.entity} />
        )}
        <SettingRows
          level={level}
          resource={row.resource.id}
          {...(operation === undefined ? {} : { verb: operation.verb })}
          names={settingsOf(row, level, effect)}
        />
        <h3 className="section-head">
          Example
          <span className="end quiet">answered from the seed</span>
        </h3>
        {shown !== undefined && <LiveExample operation={shown.id} />}
      </div>
    </section>
  );
}

interface ScopeProps {
  readonly row: OutlineRow;
  /** The id of an operation; `null` for all of the path. */
  readonly chosen: string | null;
  readonly onChoose: (operation: string | null) => void;
}

/** All of a path, or one of its operations. */
const Scope = ({ row, chosen, onChoose }: ScopeProps): React.JSX.Element => (
  <div className="scope" role="group" aria-label="What is looked at">
    <button
      type="button"
      className={chosen === null ? 'text-button strong' : 'text-button'}
      aria-pressed={chosen === null}
      onClick={() => onChoose(null)}
    >
      all of it
    </button>
    {row.operations.map(({ id, verb, effect }) => (
      <button
        key={id}
        type="button"
        className={id === chosen ? 'text-button strong' : 'text-button'}
        aria-pressed={id === chosen}
        title={id}
        onClick={() => onChoose(id)}
      >
        <EffectMark effect={effect} /> {verb}
      </button>
    ))}
  </div>
);

interface OfEntity {
  /** The name of the entity. */
  readonly entity: string;
  readonly onStatement: (line: number) => void;
}

const GoesInAndOut = ({ entity, onStatement }: OfEntity): React.JSX.Element => (
  <>
    <h3 className="section-head">
      Goes in and out
      <span className="end quiet">of every {entity}</span>
    </h3>
    <ExposureGrid entity={entity} onStatement={onStatement} />
  </>
);

/** The settings that mean something for a path. */
function settingsOf(
  { operations, resource }: OutlineRow,
  level: 'resource' | 'operation',
  effect: CustomEffect['kind'] | null,
): readonly ChoosableSetting[] {
  const verbs = operations.map(({ verb }) => verb);
  const isList = answersList({ operations, resource });
  const isRead = verbs.includes('list') || verbs.includes('read');
  const isMeant: Readonly<Partial<Record<ChoosableSetting, boolean>>> = {
    pageStyle: isList,
    ceiling: isList,
    totals: isList,
    envelope: isList,
    oversize: isList,
    pageSize: isList,
    maxPageSize: isList,
    expandSize: isList,
    fields: isRead,
    expand: isRead,
    expandDepth: isRead,
    filterStyle: isList,
    sortStyle: isList,
    filterThrough: isList,
    filterSteps: isList,
    defaultSort: isList,
    search: isList,
    prefer: verbs.some((verb) => CHANGES.has(verb)),
    ifMatch: verbs.some((verb) => CHANGES.has(verb) && verb !== 'create'),
    idempotency: verbs.some((verb) => verb === 'create' || verb === 'transition' || verb === 'custom'),
    createAnswers: verbs.includes('create'),
    replaceAnswers: verbs.includes('replace'),
    queryBy: effect === 'query' || effect === 'find',
    manyAnswers: effect === 'many',
    actionAnswers: verbs.includes('transition') || verbs.includes('custom'),
    // They are pressed above.
    leftOut: false,
    removeAnswers: verbs.includes('remove'),
    putCreates: verbs.includes('replace') && resource.kind === 'item',
    invalidStatus: verbs.some((verb) => TAKES_BODY.has(verb)),
  };
  const without = effect === null ? NOTHING_UNUSED : UNUSED_BY[effect];
  return CHOOSABLE_NAMES.filter(
    (name) => hasLevel(name, level) && (isMeant[name] ?? true) && !without.has(name),
  );
}

const NOTHING_UNUSED: ReadonlySet<ChoosableSetting> = new Set();
const CHANGES_NOTHING: ReadonlySet<ChoosableSetting> = new Set([
  'actionAnswers',
  'ifMatch',
  'prefer',
  'idempotency',
]);
const TELLS_NO_RECORD: ReadonlySet<ChoosableSetting> = new Set(['fields', 'expand']);
const MADE_BY_IT: ReadonlySet<ChoosableSetting> = new Set(['actionAnswers']);

/** Settings that mean nothing to an operation of one's own, by what it does. */
const UNUSED_BY: Readonly<Record<CustomEffect['kind'], ReadonlySet<ChoosableSetting>>> = {
  query: CHANGES_NOTHING,
  find: CHANGES_NOTHING,
  caller: NOTHING_UNUSED,
  aggregate: TELLS_NO_RECORD,
  fixed: TELLS_NO_RECORD,
  assign: NOTHING_UNUSED,
  create: MADE_BY_IT,
  // It has no path of its own.
  accept: NOTHING_UNUSED,
  // Whoever signs in has no credentials yet.
  verify: new Set([...CHANGES_NOTHING, 'access', 'role']),
  revoke: CHANGES_NOTHING,
  many: new Set(['actionAnswers', 'ifMatch', 'prefer']),
};

const answersList = ({ operations, resource }: Pick<OutlineRow, 'operations' | 'resource'>): boolean =>
  operations.some(({ verb }) => verb === 'list') && resource.kind !== 'query';

/** What the path adds to the one above. */
const lastWord = ({ resource: { path } }: OutlineRow): string =>
  path.split('/').findLast((part) => part !== '' && !part.startsWith('{')) ?? '';

/** What several records are called, in paths, operations and links. */
function PluralRow({ entity }: { readonly entity: string }): React.JSX.Element | null {
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const id = model === null ? undefined : indexModel(model).entities.get(entity)?.id;
  if (id === undefined) return null;
  return <WordRow subject={pluralSubject(id)} word={plural(entity)} title="Plural name" />;
}

/** Which operations of one's own can stand below a path. */
function customsOn({ resource: { kind, canonical } }: OutlineRow): CustomPlace | null {
  switch (kind) {
    case 'entry':
      return 'entry';
    case 'collection':
      return canonical ? 'collection' : null;
    case 'item':
    case 'singleton':
      return canonical ? 'item' : null;
    case 'query':
    case 'collection-action':
    case 'action':
    case 'aggregate':
    case 'fixed':
    case 'reverse':
    case 'reference':
    case 'pairing':
    case 'pair':
      return null;
  }
}

const showsRecords = ({ resource: { kind } }: OutlineRow): boolean =>
  kind === 'collection' || kind === 'item' || kind === 'singleton';

const CHANGES: ReadonlySet<Verb> = new Set(['create', 'replace', 'change', 'remove', 'transition', 'custom']);
const TAKES_BODY: ReadonlySet<Verb> = new Set(['create', 'replace', 'change', 'attach', 'custom']);

/** Run by the engine in the worker, again whenever the contract changes. */
function LiveExample({ operation }: { readonly operation: string }): React.JSX.Element {
  const outline = useAppSelector((state) => state.derived.outline);
  const example = useExample(outline, operation);
  if (example === 'running') return <p className="empty-note" />;
  if (example === null) return <p className="empty-note">No record to show it with.</p>;
  const body = (json: string | null): string => (json === null ? '' : `\n\n${indentJson(json)}`);
  return (
    <pre className="live-example" aria-label="Example exchange">
      {example.requestHead.join('\n') + body(example.requestBody)}
      {'\n\n'}
      {[example.statusLine, ...example.responseHead].join('\n') + body(example.responseBody)}
    </pre>
  );
}
