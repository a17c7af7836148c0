import { greatest } from '../model/index.js';
import { LONGEST_MS, type Failure, type Latency, type FaultRule } from './faults.js';

/** Where a line of troubles does not fit, and what was expected. */
export interface FaultTextProblem {
  /** From 1. */
  readonly line: number;
  readonly message: string;
}

export type FaultsRead =
  | { readonly ok: true; readonly items: readonly FaultRule[] }
  | { readonly ok: false; readonly problems: readonly FaultTextProblem[] };

const ALL = 'all';
const STATUSES: readonly Failure['status'][] = [429, 500, 502, 503, 504];
const HOW =
  'Expected 200 ms, 50..400 ms, around 300 ms by 80, a status with its share such as 503 10%, cut 2%, or 4000 bytes/s.';

/**
 * Reads what goes wrong on purpose, a line an operation: its name or `all`, a colon, and parts separated by
 * commas. Empty lines are passed over.
 */
export function readFaults(text: string, operations: ReadonlySet<string>): FaultsRead {
  const items: FaultRule[] = [];
  const problems: FaultTextProblem[] = [];
  const told = new Set<string>();
  for (const [index, written] of text.split('\n').entries()) {
    if (written.trim() === '') continue;
    const line = index + 1;
    const colon = written.indexOf(':');
    const name = (colon === -1 ? written : written.slice(0, colon)).trim();
    if (colon === -1)
      problems.push({ line, message: 'Expected all or the name of an operation, and a colon.' });
    else if (name !== ALL && !operations.has(name))
      problems.push({ line, message: `There is no operation ${name.slice(0, 80)}.` });
    else if (told.has(name)) problems.push({ line, message: `${name} is told about twice.` });
    else {
      told.add(name);
      const read = readParts(written.slice(colon + 1));
      if ('message' in read) problems.push({ line, message: read.message });
      else items.push(name === ALL ? read : { operation: name, ...read });
    }
  }
  return problems.length === 0 ? { ok: true, items } : { ok: false, problems };
}

interface Parts {
  latency?: Latency;
  failures?: readonly Failure[];
  drop?: number;
  bytesPerSecond?: number;
}

function readParts(text: string): Parts | { readonly message: string } {
  const parts: Parts = {};
  for (const written of text.split(',')) {
    const part = written.trim().replace(/\s+/g, ' ');
    const message = takePart(parts, part);
    if (message !== null) return { message };
  }
  const share = (parts.drop ?? 0) + (parts.failures ?? []).reduce((sum, { rate }) => sum + rate, 0);
  return share > 1.000_001 ? { message: 'Together more than 100% would fail.' } : parts;
}

const NUMBER = String.raw`(\d+(?:\.\d+)?)`;
const FIXED = new RegExp(`^${NUMBER} ?ms$`);
const UNIFORM = new RegExp(`^${NUMBER} ?\\.\\. ?${NUMBER} ?ms$`);
const NORMAL = new RegExp(`^around ${NUMBER} ?ms by ${NUMBER}(?: ?ms)?$`);
const SHARE = new RegExp(`^(cut|\\d{3}) ${NUMBER} ?%$`);
const PACE = /^(\d+) ?bytes\/s$/;

/** Why a part cannot be taken; `null` once it is. */
function takePart(parts: Parts, part: string): string | null {
  const [, share, percent] = SHARE.exec(part) ?? [];
  if (share !== undefined) return takeShare(parts, share, Number((Number(percent) / 100).toFixed(6)));
  const [, pace] = PACE.exec(part) ?? [];
  if (pace !== undefined) {
    if (Number(pace) < 1 || parts.bytesPerSecond !== undefined)
      return 'Expected one pace of at least 1 bytes/s.';
    parts.bytesPerSecond = Number(pace);
    return null;
  }
  const latency = readLatency(part);
  if (latency === null) return `${part === '' ? 'Nothing' : part.slice(0, 60)} is not understood. ${HOW}`;
  if (parts.latency !== undefined) return 'An answer is held back in one way only.';
  const most = greatest(
    Object.values(latency).filter((value) => typeof value === 'number'),
    0,
  );
  if (most > LONGEST_MS) return `An answer is held back for at most ${LONGEST_MS} ms.`;
  parts.latency = latency;
  return null;
}

function takeShare(parts: Parts, what: string, rate: number): string | null {
  if (rate > 1) return 'Expected at most 100%.';
  if (what === 'cut') {
    if (parts.drop !== undefined) return 'cut is told twice.';
    parts.drop = rate;
    return null;
  }
  const status = STATUSES.find((known) => String(known) === what);
  if (status === undefined) return `Expected a failure of ${STATUSES.join(', ')}, not ${what}.`;
  if (parts.failures?.some((known) => known.status === status) === true) return `${what} is told twice.`;
  parts.failures = [...(parts.failures ?? []), { status, rate }];
  return null;
}

function readLatency(part: string): Latency | null {
  const [, ms] = FIXED.exec(part) ?? [];
  if (ms !== undefined) return { kind: 'fixed', ms: Number(ms) };
  const [, from, to] = UNIFORM.exec(part) ?? [];
  if (from !== undefined) return { kind: 'uniform', from: Number(from), to: Number(to) };
  const [, mean, deviation] = NORMAL.exec(part) ?? [];
  return mean === undefined ? null : { kind: 'normal', mean: Number(mean), deviation: Number(deviation) };
}

/** The lines that `readTroubles` reads back. */
export const printFaults = (items: readonly FaultRule[]): string =>
  items.map((item) => `${item.operation ?? ALL}: ${partsOf(item).join(', ')}`).join('\n');

function partsOf({ latency, failures = [], drop, bytesPerSecond }: FaultRule): string[] {
  return [
    ...(latency === undefined ? [] : [latencyText(latency)]),
    ...failures.map(({ status, rate }) => `${status} ${percent(rate)}`),
    ...(drop === undefined ? [] : [`cut ${percent(drop)}`]),
    ...(bytesPerSecond === undefined ? [] : [`${bytesPerSecond} bytes/s`]),
  ];
}

function latencyText(latency: Latency): string {
  switch (latency.kind) {
    case 'fixed':
      return `${latency.ms} ms`;
    case 'uniform':
      return `${latency.from}..${latency.to} ms`;
    case 'normal':
      return `around ${latency.mean} ms by ${latency.deviation}`;
  }
}

const percent = (rate: number): string => `${Number((rate * 100).toFixed(4))}%`;
