import { parameterKey, sentTerm, type QueryParameter } from '../../contract/index.js';
import { breaking, compatible, type About } from '../change.js';
import { scalarProblem } from '../values.js';
import type { Aligned, ContractChange, Pair } from '../types.js';

/** What can be asked of lists. */
export function* compareParameters({ pairs }: Aligned): Generator<ContractChange> {
  for (const pair of pairs) yield* compareQueries(pair, pair.after.paging?.oversize === 'refused');
}

function* compareQueries({ before, after, where }: Pair, refusesLarge: boolean): Generator<ContractChange> {
  const about: About = { where, resource: after.resource, reasons: after.reasons };
  const now = new Map(after.query.map((parameter) => [parameterKey(parameter), parameter]));
  const fate = after.unknownParameters === 'refused' ? 'refused' : 'ignored';
  for (const was of before.query) {
    const is = now.get(parameterKey(was));
    now.delete(parameterKey(was));
    if (is === undefined) yield breaking('sender', about, `${was.name} of ${where} is ${fate}.`);
    else yield* compareParameter(was, is, { ...about, reasons: is.reasons }, refusesLarge);
  }
  for (const is of now.values()) {
    const asked = { ...about, reasons: is.reasons };
    if (is.role === 'input' && is.default === null)
      yield breaking('sender', asked, `${is.name} of ${where} must be sent now.`);
    else yield compatible(asked, `${where} takes ${is.name}.`);
  }
  if (before.unknownParameters === 'ignored' && after.unknownParameters === 'refused')
    yield breaking('sender', about, `${where} refuses parameters it does not know.`);
  const [orderBefore, orderAfter] = [before, after].map(({ order }) =>
    order.map(({ name, descending }) => (descending ? `-${name}` : name)).join(','),
  );
  if (orderBefore !== orderAfter && orderBefore !== '' && orderAfter !== '')
    yield compatible(about, `${where} is sorted by ${orderAfter} where nobody asks; it was ${orderBefore}.`);
}

function* compareParameter(
  was: QueryParameter,
  is: QueryParameter,
  about: About,
  refusesLarge: boolean,
): Generator<ContractChange> {
  const name = `${is.name} of ${about.where}`;
  const lost = (kept: readonly string[], had: readonly string[]): readonly string[] =>
    had.filter((one) => !kept.includes(one));
  if (was.role === 'size' && is.role === 'size') {
    if (is.max < was.max && refusesLarge)
      yield breaking('sender', about, `${name} is at most ${is.max}; it was ${was.max}.`);
    else if (is.max !== was.max) yield compatible(about, `${name} is at most ${is.max}; it was ${was.max}.`);
    if (is.default !== was.default)
      yield compatible(about, `A page holds ${is.default} where nobody asks; it was ${was.default}.`);
  } else if (was.role === 'input' && is.role === 'input') {
    if (was.default !== null && is.default === null)
      yield breaking('sender', about, `${name} must be sent now.`);
    const problem = scalarProblem(was.type, is.type);
    if (problem !== null) yield breaking('sender', about, `${name} ${problem}.`);
  } else if (was.role === 'sort' && is.role === 'sort') {
    const names = (one: typeof is): readonly string[] => one.keys.map((key) => key.name);
    const gone = lost(names(is), names(was));
    if (gone.length > 0) yield breaking('sender', about, `${name} does not know ${gone.join(', ')}.`);
    if (was.style !== is.style) yield breaking('sender', about, `${name} tells directions in another way.`);
  } else if (was.role === 'filter' && is.role === 'filter') {
    const gone = lost(is.operators, was.operators);
    if (gone.length > 0) yield breaking('sender', about, `${name} does not know ${gone.join(', ')}.`);
    const problem = scalarProblem(was.type, is.type);
    if (problem !== null) yield breaking('sender', about, `${name} ${problem}.`);
    if (was.spelling !== is.spelling || was.family !== is.family)
      yield breaking('sender', about, `${name} is written ${sentTerm(is, is.operators[0] ?? 'eq')}… now.`);
  } else if (
    (was.role === 'fields' && is.role === 'fields') ||
    (was.role === 'expand' && is.role === 'expand')
  ) {
    const gone = lost(is.names, was.names);
    if (gone.length > 0) yield breaking('sender', about, `${name} does not know ${gone.join(', ')}.`);
  } else if (was.role !== is.role) yield breaking('sender', about, `${name} means something else.`);
}
