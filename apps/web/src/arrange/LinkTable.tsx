import {
  EXPECTED_RELATION,
  findArrangement,
  LINK_ATTRIBUTE_NAMES,
  LINK_ATTRIBUTES,
  LINK_PLACES,
  LINK_RELATION,
  type LinkAttributes,
  type LinkChoice,
  type LinkChoices,
  type LinkPlace,
} from '@isomeros/core/arrangement';
import {
  carriesLinks,
  indexContract,
  isCarried,
  leadsTo,
  offeredWhen,
  type Contract,
  type Link,
  type Resource,
} from '@isomeros/core/contract';
import type { Model } from '@isomeros/core/model';
import { Checkbox } from 'antd';
import { useState } from 'react';
import { Explained } from '../app/help/Explained.js';
import { TextField } from '../app/parts/TextField.js';
import { useAppSelector } from '../app/store.js';
import { useContract } from '../design/useContract.js';
import { useDecide } from '../design/useDecide.js';
import { arrangementName } from '../design/viewSlice.js';
import { OriginMark } from './OriginMark.js';
import { OwnLinks } from './OwnLinks.js';

interface Props {
  /** The id of the resource whose links they are. */
  readonly resource: string;
  /** Whether they are shown; stays from path to path. */
  readonly isUnfolded: boolean;
  readonly onUnfold: (isUnfolded: boolean) => void;
  readonly onStatement: (line: number) => void;
}

const NOTHING: LinkChoices[string] = {};

/** The links of a path: what each is called, where it leads, when, and where it is carried; and those of one's own. */
export function LinkTable({
  resource: id,
  isUnfolded,
  onUnfold,
  onStatement,
}: Props): React.JSX.Element | null {
  const contract = useContract();
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const resource = contract === null ? undefined : indexContract(contract).resources.get(id);
  if (contract === null || model === null || resource === undefined) return null;
  const { links, leftOutLinks } = resource;
  if (links.length + leftOutLinks.length === 0) return null;
  return (
    <>
      <h3 className="section-head">
        <Explained by="arrange.links">
          <button
            type="button"
            className="fold-head"
            aria-expanded={isUnfolded}
            onClick={() => onUnfold(!isUnfolded)}
          >
            <span aria-hidden>{isUnfolded ? '▾' : '▸'}</span> Links
          </button>
        </Explained>
        <span className="end quiet">
          {links.length} offered{leftOutLinks.length === 0 ? '' : `, ${leftOutLinks.length} left out`}
        </span>
      </h3>
      {isUnfolded && (
        <>
          <Table model={model} contract={contract} resource={resource} />
          {carriesLinks(resource) && (
            <OwnLinks model={model} contract={contract} resource={resource} onStatement={onStatement} />
          )}
        </>
      )}
    </>
  );
}

interface TableProps {
  readonly model: Model;
  readonly contract: Contract;
  readonly resource: Resource;
}

/** Records stand in lists as well; everything else is answered alone. */
const placesOf = ({ kind }: Resource): readonly LinkPlace[] =>
  kind === 'item' || kind === 'singleton' ? LINK_PLACES : LINK_PLACES.filter((place) => place !== 'lists');

function Table({ model, contract, resource }: TableProps): React.JSX.Element {
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const decide = useDecide();
  const all = findArrangement(choices, arrangement)?.links ?? {};
  const chosen = Object.hasOwn(all, resource.id) ? (all[resource.id] ?? NOTHING) : NOTHING;
  const places = placesOf(resource);
  const { links, leftOutLinks } = resource;
  return (
    <table className="link-table">
      <thead>
        <tr>
          <th>relation</th>
          <th>leads to, and when</th>
          {places.map((place) => (
            <th key={place} className="place">
              {PLACE_HEADS[place]}
            </th>
          ))}
          <th aria-label="More" className="more" />
          <th aria-label="Chosen at" className="level" />
        </tr>
      </thead>
      <tbody>
        {[...links, ...leftOutLinks].map((link, index) => (
          <LinkRow
            key={link.id}
            link={link}
            choice={Object.hasOwn(chosen, link.id) ? (chosen[link.id] ?? null) : null}
            path={leadsTo(contract, link)}
            when={offeredWhen(model, link)}
            places={places}
            isCarriedAt={(place) => isCarried(link, place, contract.representation.memberLinks)}
            position={index + 1}
            last={links.length}
            onChoose={(choice) => decide('links', { resource: resource.id, link: link.id, choice })}
          />
        ))}
      </tbody>
    </table>
  );
}

const PLACE_HEADS: Readonly<Record<LinkPlace, string>> = { items: 'items', lists: 'lists', header: 'header' };

interface RowProps {
  readonly link: Link;
  readonly choice: LinkChoice | null;
  readonly path: string;
  /** `null` where it is always offered. */
  readonly when: string | null;
  readonly places: readonly LinkPlace[];
  readonly isCarriedAt: (place: LinkPlace) => boolean;
  /** Its place in the order, from 1, and that of the last. */
  readonly position: number;
  readonly last: number;
  readonly onChoose: (choice: LinkChoice | null) => void;
}

function LinkRow(props: RowProps): React.JSX.Element {
  const { link, choice, path, when, places, isCarriedAt, onChoose } = props;
  const [isWrong, setWrong] = useState(false);
  const [isOpen, setOpen] = useState(false);
  // What was chosen is shown at once, before the contract follows.
  const relation = choice?.relation ?? link.was ?? link.relation;
  const derived = link.was ?? link.relation;
  const isOut = choice?.leftOut === true;
  const carried = isOut ? [] : (choice?.in ?? places.filter(isCarriedAt));
  const rename = (text: string): void => {
    setWrong(!LINK_RELATION.test(text));
    if (LINK_RELATION.test(text)) onChoose(withOne(choice, 'relation', text === derived ? undefined : text));
  };
  const carry = (place: LinkPlace, isOn: boolean): void => {
    const { leftOut: _leftOut, ...others } = choice ?? {};
    const now = LINK_PLACES.filter((one) => (one === place ? isOn : carried.includes(one)));
    onChoose(now.length === 0 ? { ...others, leftOut: true } : { ...others, in: now });
  };
  return (
    <>
      <tr className={`${isOut ? 'left-out' : ''} ${choice === null ? '' : 'chosen'}`}>
        <td>
          {isOwn(link) ? (
            <span className="mono own-relation">{relation}</span>
          ) : (
            <TextField
              mono
              borderless
              label={`Relation of ${link.id}`}
              value={relation}
              onCommit={(text) => rename(text.trim())}
            />
          )}
          {relation !== derived && <span className="was quiet">was {derived}</span>}
          {isWrong && (
            <span className="wrong" role="alert">
              {`Expected ${EXPECTED_RELATION}.`}
            </span>
          )}
        </td>
        <td className="quiet" title={`${path}, ${when ?? 'always'}`}>
          <span className="mono">{shortened(path)}</span>
          {when !== null && <span className="when">if {when}</span>}
        </td>
        {places.map((place) => (
          <td key={place} className="place">
            <Checkbox
              checked={carried.includes(place)}
              aria-label={`${relation} in ${PLACE_HEADS[place]}`}
              onChange={({ target }) => carry(place, target.checked)}
            />
          </td>
        ))}
        <td>
          <button
            type="button"
            className="text-button"
            aria-label={`More of ${relation}`}
            aria-expanded={isOpen}
            onClick={() => setOpen(!isOpen)}
          >
            …
          </button>
        </td>
        <td>
          <OriginMark
            title={relation}
            level={choice === null && !isOwn(link) ? 'default' : 'arrangement'}
            onReset={choice === null ? null : () => onChoose(null)}
          />
        </td>
      </tr>
      {isOpen && (
        <tr className="link-more">
          <td colSpan={4 + places.length}>
            <MoreOfLink {...props} />
          </td>
        </tr>
      )}
    </>
  );
}

/** The end of a path, by which it is known. */
const shortened = (path: string): string => path.replace(/^\/.*(\/[^/]+)$/, '…$1');

const isOwn = ({ reasons }: Link): boolean => reasons.some(({ rule }) => rule === 'link.own');

/** A choice with one thing chosen otherwise, or not any more. */
function withOne<Name extends keyof LinkChoice>(
  choice: LinkChoice | null,
  name: Name,
  value: LinkChoice[Name] | undefined,
): LinkChoice | null {
  const { [name]: _before, ...others } = choice ?? {};
  const next = value === undefined ? others : { ...others, [name]: value };
  return Object.keys(next).length === 0 ? null : next;
}

/** What else is told of a link, and its place among the others. */
function MoreOfLink({ link, choice, position, last, onChoose }: RowProps): React.JSX.Element {
  const [wrong, setWrong] = useState<string | null>(null);
  const tell = (name: keyof LinkAttributes, text: string): void => {
    const { pattern, expected } = LINK_ATTRIBUTES[name];
    const isFit = text === '' || pattern.test(text);
    setWrong(isFit ? null : `Expected ${expected}.`);
    if (isFit) onChoose(withOne(choice, name, text === '' ? undefined : text));
  };
  const move = (by: number): void => onChoose(withOne(choice, 'position', position + by));
  return (
    <div className="link-attributes">
      {LINK_ATTRIBUTE_NAMES.map((name) => (
        <label key={name}>
          <span className="quiet">{name}</span>
          <TextField
            mono
            label={`${name} of ${link.id}`}
            value={choice?.[name] ?? ''}
            onCommit={(text) => tell(name, text.trim())}
          />
        </label>
      ))}
      <span className="link-order">
        <button type="button" className="text-button" disabled={position === 1} onClick={() => move(-1)}>
          Move up
        </button>
        <button type="button" className="text-button" disabled={position >= last} onClick={() => move(1)}>
          Move down
        </button>
      </span>
      {wrong !== null && (
        <p className="wrong" role="alert">
          {wrong}
        </p>
      )}
    </div>
  );
}
