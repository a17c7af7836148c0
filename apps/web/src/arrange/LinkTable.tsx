import {
  findArrangement,
  LINK_RELATION,
  type LinkChoice,
  type LinkChoices,
} from '@isomeros/core/arrangement';
import { indexContract, type Contract, type Link } from '@isomeros/core/contract';
import type { Model } from '@isomeros/core/model';
import { printCondition } from '@isomeros/core/notation';
import { Checkbox } from 'antd';
import { useState } from 'react';
import { Explained } from '../app/help/Explained.js';
import { TextField } from '../app/parts/TextField.js';
import { useAppSelector } from '../app/store.js';
import { useContract } from '../design/useContract.js';
import { useDecide } from '../design/useDecide.js';
import { arrangementName } from '../design/viewSlice.js';
import { OriginMark } from './OriginMark.js';

interface Props {
  /** The id of the resource whose links they are. */
  readonly resource: string;
}

const NOTHING: LinkChoices[string] = {};

/** The derived links of a path: what each is called, where it leads and when; each can be left out and renamed. */
export function LinkTable({ resource }: Props): React.JSX.Element | null {
  const contract = useContract();
  const model = useAppSelector((state) => state.derived.reading?.model ?? null);
  const choices = useAppSelector((state) => state.document.choices);
  const arrangement = useAppSelector(arrangementName);
  const decide = useDecide();
  const [isUnfolded, setUnfolded] = useState(false);
  const found = contract === null ? undefined : indexContract(contract).resources.get(resource);
  if (contract === null || model === null || found === undefined) return null;
  const { links, leftOutLinks } = found;
  if (links.length + leftOutLinks.length === 0) return null;
  const all = findArrangement(choices, arrangement)?.links ?? {};
  const chosen = Object.hasOwn(all, resource) ? (all[resource] ?? NOTHING) : NOTHING;
  const choose = (link: string, choice: LinkChoice | null): void => {
    decide('links', { resource, link, choice });
  };
  return (
    <>
      <h3 className="section-head">
        <Explained by="arrange.links">
          <button
            type="button"
            className="fold-head"
            aria-expanded={isUnfolded}
            onClick={() => setUnfolded(!isUnfolded)}
          >
            <span aria-hidden>{isUnfolded ? '▾' : '▸'}</span> Links
          </button>
        </Explained>
        <span className="end quiet">
          {links.length} offered{leftOutLinks.length === 0 ? '' : `, ${leftOutLinks.length} left out`}
        </span>
      </h3>
      {isUnfolded && (
        <table className="link-table">
          <thead>
            <tr>
              <th>relation</th>
              <th>leads to</th>
              <th>offered when</th>
              <th aria-label="Offered" />
              <th aria-label="Chosen at" />
            </tr>
          </thead>
          <tbody>
            {[...links, ...leftOutLinks].map((link) => (
              <LinkRow
                key={link.id}
                link={link}
                choice={Object.hasOwn(chosen, link.id) ? (chosen[link.id] ?? null) : null}
                path={pathOf(contract, link)}
                when={offeredWhen(model, link)}
                onChoose={(choice) => choose(link.id, choice)}
              />
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

interface RowProps {
  readonly link: Link;
  readonly choice: LinkChoice | null;
  readonly path: string;
  readonly when: string;
  readonly onChoose: (choice: LinkChoice | null) => void;
}

function LinkRow({ link, choice, path, when, onChoose }: RowProps): React.JSX.Element {
  const [isWrong, setWrong] = useState(false);
  // What was chosen is shown at once, before the contract follows.
  const relation = choice?.relation ?? link.relation;
  const isOut = choice?.leftOut === true;
  const { leftOut: _leftOut, ...offered } = choice ?? {};
  const rename = (text: string): void => {
    setWrong(!LINK_RELATION.test(text));
    if (LINK_RELATION.test(text)) onChoose({ ...choice, relation: text });
  };
  return (
    <tr className={`${isOut ? 'left-out' : ''} ${choice === null ? '' : 'chosen'}`}>
      <td>
        <TextField
          mono
          borderless
          label={`Relation of ${link.id}`}
          value={relation}
          onCommit={(text) => rename(text.trim())}
        />
        {isWrong && (
          <span className="wrong" role="alert">
            Expected a small letter, then letters, digits, dots or hyphens.
          </span>
        )}
      </td>
      <td className="mono quiet" title={path}>
        {path}
      </td>
      <td className="quiet" title={when}>
        {when}
      </td>
      <td>
        <Checkbox
          checked={!isOut}
          aria-label={`${relation} offered`}
          onChange={({ target }) => onChoose(target.checked ? offered : { ...choice, leftOut: true })}
        />
      </td>
      <td>
        <OriginMark
          title={relation}
          level={choice === null ? 'default' : 'arrangement'}
          onReset={choice === null ? null : () => onChoose(null)}
        />
      </td>
    </tr>
  );
}

/** Where a link leads, as a path under the root. */
function pathOf(contract: Contract, { target }: Link): string {
  switch (target.kind) {
    case 'self':
    case 'pair':
      return 'itself';
    case 'page':
      return `the ${target.page} page`;
    case 'description':
      return 'the published description';
    default:
      return indexContract(contract).resources.get(target.resource)?.path ?? '';
  }
}

/** When a link is offered, in the words of the notation. */
function offeredWhen(model: Model, { target }: Link): string {
  switch (target.kind) {
    case 'reference':
    case 'read':
      return 'it is set';
    case 'custom':
      return target.when.length === 0 ? 'always' : printCondition(target.when);
    case 'action': {
      for (const declaration of model.declarations) {
        if (declaration.kind !== 'entity') continue;
        for (const { name, lifeCycle } of declaration.attributes) {
          const found = lifeCycle?.find(({ id }) => id === target.transition);
          if (found === undefined) continue;
          const states = `${name} = ${found.from.join(', ')}`;
          return found.when === null ? states : `${states} and ${printCondition(found.when)}`;
        }
      }
      return '';
    }
    case 'page':
      return 'there is one';
    default:
      return 'always';
  }
}
