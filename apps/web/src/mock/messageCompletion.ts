import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import {
  filterTerm,
  indexContract,
  sentTerm,
  type Contract,
  type QueryParameter,
} from '@isomeros/core/contract';
import { predictMatch } from './messageText.js';

const HEADERS = [
  'Accept',
  'Accept-Language',
  'Authorization',
  'Content-Type',
  'Host',
  'Origin',
  'User-Agent',
];
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS'];

/** Completes methods, paths, query parameters, header names, media types and body members from the contract. */
export function completeMessage(contract: Contract, context: CompletionContext): CompletionResult | null {
  const { state, pos } = context;
  const line = state.doc.lineAt(pos);
  const before = line.text.slice(0, pos - line.from);
  if (line.number === 1) return completeRequestLine(contract, before, pos);
  const blank = firstBlankLine(state.doc.toString());
  if (blank === null || line.number <= blank) return completeHeader(before, pos);
  const member = /["{,]\s*"?([A-Za-z]*)$/.exec(before);
  if (member === null) return null;
  return completeMember(contract, state.doc.toString(), pos - (member[1] ?? '').length);
}

function firstBlankLine(text: string): number | null {
  const index = text.split('\n').findIndex((line) => line.trim() === '');
  return index === -1 ? null : index + 1;
}

function completeRequestLine(contract: Contract, before: string, pos: number): CompletionResult | null {
  const [method = '', target] = before.split(' ');
  if (target === undefined)
    return { from: pos - method.length, options: METHODS.map((label) => ({ label, apply: `${label} ` })) };
  if (before.split(' ').length > 2) return null;
  const mark = target.indexOf('?');
  if (mark !== -1) return completeQuery(contract, before, pos);
  const { operationsOf } = indexContract(contract);
  const options = contract.resources.flatMap((resource): Completion[] => {
    const operation = operationsOf
      .get(resource.id)
      ?.find((candidate) => candidate.method === (method === 'HEAD' ? 'GET' : method));
    return operation === undefined && method !== 'OPTIONS'
      ? []
      : [{ label: contract.root + resource.path, detail: operation?.id ?? '' }];
  });
  return { from: pos - target.length, options };
}

function completeQuery(contract: Contract, before: string, pos: number): CompletionResult | null {
  const name = /[?&]([^=&]*)$/.exec(before)?.[1];
  const found = predictMatch(contract, before);
  if (name === undefined || found.kind === 'none') return null;
  return {
    from: pos - name.length,
    options: found.operation.query.flatMap(parameterOptions),
  };
}

/** A parameter, or a filter with each of its operators, written as it travels. */
function parameterOptions(parameter: QueryParameter): readonly Completion[] {
  const { name, role } = parameter;
  if (role !== 'filter') return [{ label: name, apply: `${encodeURIComponent(name)}=`, detail: role }];
  return parameter.operators.map((operator) => {
    const term = filterTerm(parameter, operator);
    const label = term.before === '' ? term.name : `${term.name}=${term.before}`;
    return { label, apply: sentTerm(parameter, operator), detail: role };
  });
}

function completeHeader(before: string, pos: number): CompletionResult | null {
  if (/^(accept|content-type):\s*\S*$/i.test(before)) {
    const typed = /\S*$/.exec(before.slice(before.indexOf(':') + 1))?.[0] ?? '';
    const types = ['application/json', 'application/merge-patch+json'];
    return { from: pos - typed.length, options: types.map((label) => ({ label })) };
  }
  if (before.includes(':') || before === '') return null;
  return { from: pos - before.length, options: HEADERS.map((label) => ({ label, apply: `${label}: ` })) };
}

function completeMember(contract: Contract, text: string, from: number): CompletionResult | null {
  const found = predictMatch(contract, text);
  if (found.kind === 'none' || found.operation.accepts === null) return null;
  const shape = indexContract(contract).shapes.get(found.operation.accepts);
  const members = (shape?.members ?? []).filter(({ mode }) => mode === 'accepted');
  return {
    from,
    options: members.map(({ name, required }) => ({ label: name, detail: required ? 'required' : '' })),
  };
}
