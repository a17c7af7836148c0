import {
  exposureChoice,
  findArrangement,
  MEMBER_NAME,
  usualOperators,
  type Aspect,
  type Choices,
  type Exposure,
  type ExposureChoice,
  type Exposures,
  type FilterOperator,
  type PartEdit,
} from '@isomeros/core/arrangement';
import type { GridRow } from '@isomeros/core/derivation';
import { indexModel } from '@isomeros/core/model';
import { Checkbox, Popover } from 'antd';
import { useCallback, useState } from 'react';
import { ExplainedWords } from '../app/help/Explained.js';
import { ReasonTrail } from '../app/parts/ReasonTrail.js';
import { TextField } from '../app/parts/TextField.js';
import { useAppSelector } from '../app/store.js';
import { useDecide } from '../design/useDecide.js';
import { useAsked, type Ask } from '../design/derivation/useAsked.js';
import { arrangementName } from '../design/viewSlice.js';
import { OriginMark } from './OriginMark.js';

const COLUMNS: readonly { readonly aspect: Aspect; readonly title: string }[] = [
  { aspect: 'out', title: 'out' },
  { aspect: 'list', title: 'lists' },
  { aspect: 'create', title: 'create' },
  { aspect: 'replace', title: 'replace' },
  { aspect: 'change', title: 'change' },
  { aspect: 'filter', title: 'filter' },
  { aspect: 'sort', title: 'sort' },
  { aspect: 'search', title: 'search' },
];

/** Whether some list can be searched; else nobody need say by what. */
function isSearched(choices: Choices, name: string): boolean {
  const own = findArrangement(choices, name);
  const levels = [choices.settings, own?.settings ?? {}, ...Object.values(own?.resources ?? {})];
  return levels.some(({ search }) => search === 'on');
}

const NOWHERE = {};
const NO_ROWS: readonly GridRow[] = [];
const NO_EXPOSURES: Exposures = {};

/** The answer that was chosen, where it is one of those left; else the first. */
const chosenWord = (options: readonly string[], chosen: string | undefined): string =>
  options.find((option) => option === chosen) ?? options[0] ?? 'no';

interface Props {
  /** The name of an entity. */
  readonly entity: string;
  readonly onStatement: (line: number) => void;
}

/** What goes in and what comes out of the records of an entity: a row a member, a cell an aspect. */
export function ExposureGrid({ entity, onStatement }: Props): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const outline = useAppSelector((state) => state.derived.outline);
  const text = useAppSelector((state) => state.document.text);
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const places = useAppSelector((state) => state.derived.reading?.places ?? NOWHERE);
  const decide = useDecide();
  const ask = useCallback<Ask<readonly GridRow[]>>((derivation) => derivation.grid(entity), [entity]);
  const rows = useAsked(ask, outline) ?? NO_ROWS;
  const [asked, setAsked] = useState<string | null>(null);
  const id = model === null ? undefined : indexModel(model).entities.get(entity)?.id;
  const choose = <A extends Aspect>(member: string, aspect: A, value: Exposure[A] | null): void => {
    if (id === undefined) return;
    // Aspect and value belong together, which the type of an edit cannot see through the parameter.
    decide('exposures', { entity: id, member, aspect, value } as PartEdit<'exposures'>);
  };
  const call = ({ id: member }: GridRow, value: string | null): void => {
    if (id !== undefined) decide('exposures', { entity: id, member, aspect: 'name', value });
  };
  // What was chosen is known at once; what the model makes of it follows from the worker.
  const exposures = findArrangement(choices, arrangement)?.exposures ?? NO_EXPOSURES;
  const choiceOf = ({ id: member }: GridRow): ExposureChoice => exposureChoice(exposures, id ?? '', member);
  const row = rows.find((one) => one.id === asked);
  const columns = isSearched(choices, arrangement)
    ? COLUMNS
    : COLUMNS.filter(({ aspect }) => aspect !== 'search');
  return (
    <>
      <table className="exposure-grid" aria-label={`What goes in and out of ${entity}`}>
        <thead>
          <tr>
            <th scope="col">
              <ExplainedWords by="arrange.called">called</ExplainedWords>
            </th>
            {columns.map(({ aspect, title }) => (
              <th key={aspect} scope="col">
                <ExplainedWords by={`arrange.${aspect}`}>{title}</ExplainedWords>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((one) => (
            <tr key={one.id}>
              <th scope="row" className={choiceOf(one).name === undefined ? '' : 'chosen'}>
                <button
                  type="button"
                  className="plain-button mono"
                  aria-expanded={one.id === asked}
                  title={`${one.derived} in the model`}
                  onClick={() => setAsked(one.id === asked ? null : one.id)}
                >
                  {one.name}
                </button>
              </th>
              {columns.map(({ aspect, title }) => (
                <td key={aspect} className={`${aspect}${one.chosen.includes(aspect) ? ' chosen' : ''}`}>
                  {aspect === 'filter' ? (
                    <FilterCell
                      row={one}
                      chosen={choiceOf(one).filter}
                      onChoose={(value) => choose(one.id, 'filter', value)}
                    />
                  ) : (
                    <WordCell
                      value={chosenWord(one.options[aspect], choiceOf(one)[aspect])}
                      options={one.options[aspect]}
                      label={`${one.name}, ${title}`}
                      onChoose={(value) =>
                        choose(one.id, aspect, one.options[aspect].find((option) => option === value) ?? null)
                      }
                    />
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {row !== undefined && (
        <>
          <CalledRow key={row.id} row={row} chosen={choiceOf(row).name} onCall={(name) => call(row, name)} />
          <ReasonTrail reasons={row.reasons} places={places} text={text} onStatement={onStatement} />
        </>
      )}
    </>
  );
}

interface CalledProps {
  readonly row: GridRow;
  readonly chosen: string | undefined;
  readonly onCall: (name: string | null) => void;
}

/** What a member is called, beside its name in the model. */
function CalledRow({ row, chosen, onCall }: CalledProps): React.JSX.Element {
  const [isWrong, setWrong] = useState(false);
  const { derived } = row;
  const call = (written: string): void => {
    const name = written === '' || written === derived ? null : written;
    setWrong(name !== null && !MEMBER_NAME.test(name));
    if (name === null || MEMBER_NAME.test(name)) onCall(name);
  };
  return (
    <ul className="setting-rows">
      <li className={chosen === undefined ? '' : 'set-here'}>
        <span className="title">
          Called, where the model has <code>{derived}</code>
        </span>
        <TextField
          mono
          borderless
          autoFocus
          label={`${derived} is called`}
          value={chosen ?? derived}
          onCommit={(written) => call(written.trim())}
        />
        <OriginMark
          title="Name"
          level={chosen === undefined ? 'default' : 'arrangement'}
          onReset={chosen === undefined ? null : () => onCall(null)}
        />
        {isWrong && (
          <span className="wrong" role="alert">
            Expected letters, digits, hyphens and underscores, a letter first.
          </span>
        )}
      </li>
    </ul>
  );
}

interface WordProps {
  readonly value: string;
  /** The first is what the model says. */
  readonly options: readonly string[];
  readonly label: string;
  readonly onChoose: (value: string | null) => void;
}

/** A click goes on to the next answer; what the model settles cannot be clicked. */
function WordCell({ value, options, label, onChoose }: WordProps): React.JSX.Element {
  const [usual] = options;
  if (options.length < 2) return <span className="quiet">{value}</span>;
  const next = options[(options.indexOf(value) + 1) % options.length] ?? usual;
  return (
    <button
      type="button"
      className="plain-button"
      aria-label={`${label}: ${value}`}
      title={`${value}; a click makes it ${next ?? ''}`}
      onClick={() => onChoose(next === usual || next === undefined ? null : next)}
    >
      {value}
    </button>
  );
}

interface FilterProps {
  readonly row: GridRow;
  readonly chosen: readonly FilterOperator[] | undefined;
  readonly onChoose: (value: readonly FilterOperator[] | null) => void;
}

/** The operators a member can be filtered by; a click opens them to choose from. */
function FilterCell({ row, chosen, onChoose }: FilterProps): React.JSX.Element {
  const all = row.options.filter;
  const usual = usualOperators(all);
  const filter = chosen === undefined ? usual : all.filter((operator) => chosen.includes(operator));
  if (all.length === 0) return <span className="quiet">no</span>;
  const isUsual = sameOperators(filter, usual);
  const shown = filter.length === 0 ? 'no' : isUsual ? 'usual' : filter.join(' ');
  return (
    <Popover
      trigger="click"
      arrow={false}
      placement="bottomRight"
      content={
        <Checkbox.Group<FilterOperator>
          className="operators"
          value={[...filter]}
          options={all.map((operator) => ({ value: operator, label: operator }))}
          onChange={(checked) =>
            onChoose(
              sameOperators(checked, usual) ? null : all.filter((operator) => checked.includes(operator)),
            )
          }
        />
      }
    >
      <button type="button" className="plain-button mono" aria-label={`${row.name}, filter: ${shown}`}>
        {shown}
      </button>
    </Popover>
  );
}

const sameOperators = (some: readonly FilterOperator[], others: readonly FilterOperator[]): boolean =>
  some.length === others.length && some.every((operator) => others.includes(operator));
