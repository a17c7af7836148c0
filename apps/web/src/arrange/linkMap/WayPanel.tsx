import type { LinkStep } from '@isomeros/core/contract';
import type { WayRequest } from '@isomeros/core/engine';
import { Button, Select } from 'antd';
import { useCallback } from 'react';
import { amount } from '../../app/parts/amount.js';
import { useAsked, type Ask } from '../../design/derivation/useAsked.js';
import type { LinkMap } from '../../design/derivation/linkMap.js';
import type { Way } from '../../design/derivation/way.js';

/** The shortest way between two resources, again when what it follows from is another; `null` where there is none. */
export function useWay(of: unknown, from: string, to: string | null): Way | null | 'running' {
  const ask = useCallback<Ask<{ readonly way: Way | null }>>(
    async (derivation) => ({ way: to === null ? null : await derivation.way(from, to) }),
    [from, to],
  );
  const told = useAsked(to === null ? null : ask, of);
  if (to === null) return null;
  return told === null ? 'running' : told.way;
}

interface Props {
  readonly map: LinkMap;
  readonly from: string;
  readonly to: string | null;
  readonly way: Way | null | 'running';
  readonly onFrom: (resource: string) => void;
  readonly onTo: (resource: string | null) => void;
  readonly onShow: (resource: string) => void;
}

/** The shortest way to a resource: its requests, with what the engine answers on the seed. */
export function WayPanel({ map, from, to, way, onFrom, onTo, onShow }: Props): React.JSX.Element {
  const options = map.nodes.map(({ id, path }) => ({ value: id, label: path }));
  const pathOf = (id: string): string => map.nodes.find((node) => node.id === id)?.path ?? '';
  const search = (typed: string, option?: { readonly label: string }): boolean =>
    option?.label.toLowerCase().includes(typed.toLowerCase()) === true;
  return (
    <section className="panel" aria-label="Shortest way">
      <header className="panel-head">
        <h2>Shortest way</h2>
        <span className="quiet">from</span>
        <Select
          className="mono"
          aria-label="From"
          showSearch={{ filterOption: search }}
          value={from}
          options={options}
          onChange={onFrom}
          popupMatchSelectWidth={false}
        />
        <span className="quiet">to</span>
        <Select
          className="mono"
          aria-label="To"
          showSearch={{ filterOption: search }}
          allowClear
          placeholder="choose a resource"
          value={to}
          options={options}
          onChange={(chosen?: string) => onTo(chosen ?? null)}
          popupMatchSelectWidth={false}
        />
        {way !== null && way !== 'running' && <strong>{amount(way.steps.length + 1, 'request')}</strong>}
        {to !== null && (
          <span className="end">
            <Button onClick={() => onShow(to)}>Show among the paths</Button>
          </span>
        )}
      </header>
      <div className="panel-body">
        {to === null ? (
          <p className="empty-note">Press a resource, or Enter on it, to see the shortest way there.</p>
        ) : way === 'running' ? (
          <p className="empty-note" />
        ) : way === null ? (
          <p className="empty-note">{`No links lead from ${pathOf(from)} to ${pathOf(to)}.`}</p>
        ) : (
          <Requests way={way} pathOf={pathOf} />
        )}
      </div>
    </section>
  );
}

interface RequestsProps {
  readonly way: Way;
  readonly pathOf: (id: string) => string;
}

function Requests({ way: { steps, requests }, pathOf }: RequestsProps): React.JSX.Element {
  const answered = requests.flatMap(({ answer }) => answer ?? []);
  const missing = steps[requests.length - 1];
  return (
    <table className="way-table">
      <thead>
        <tr>
          <th aria-label="Place" />
          <th>request</th>
          <th>answer</th>
          <th className="number">bytes</th>
          <th>then follows</th>
        </tr>
      </thead>
      <tbody>
        {requests.map((request, index) => (
          <RequestRow key={index} request={request} step={steps[index]} number={index + 1} />
        ))}
        {requests.length <= steps.length && (
          <tr>
            <td />
            <td className="quiet" colSpan={4}>
              {missing === undefined
                ? 'The seed has no record to begin with.'
                : `The seed has no record that leads on to ${pathOf(missing.to)}.`}
            </td>
          </tr>
        )}
        <tr className="sum">
          <td />
          <td className="quiet">in all, one after another</td>
          <td />
          <td className="number">{answered.reduce((all, { bytes }) => all + bytes, 0)}</td>
          <td />
        </tr>
      </tbody>
    </table>
  );
}

interface RowProps {
  readonly request: WayRequest;
  readonly step: LinkStep | undefined;
  readonly number: number;
}

function RequestRow({ request, step, number }: RowProps): React.JSX.Element {
  const { method, target, answer, needs } = request;
  return (
    <tr>
      <td>
        <span className="way-number">{number}</span>
      </td>
      <td className="mono target" title={`${method} ${target}`}>
        {method} {target}
      </td>
      <td>{answer === null ? <span className="quiet">not sent</span> : answer.status}</td>
      <td className="number">{answer?.bytes ?? ''}</td>
      <td>
        {step !== undefined && <strong>{step.relation}</strong>}
        {needs.length > 0 && <span className="quiet"> needs {needs.join(', ')} from elsewhere</span>}
      </td>
    </tr>
  );
}
