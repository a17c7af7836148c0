import { bareObject, quotedEnd, type Model } from '../model/index.js';
import { planProblems, type Children, type SeedPlan } from './plan.js';

/** Where a line of a plan does not fit, and what was expected. */
export interface PlanTextProblem {
  /** From 1. */
  readonly line: number;
  readonly message: string;
}

export type PlanRead =
  | { readonly ok: true; readonly plan: SeedPlan }
  | { readonly ok: false; readonly problems: readonly PlanTextProblem[] };

type Wishes = { readonly [Part in keyof SeedPlan]: Record<string, SeedPlan[Part][string]> };

const COUNT = /^(\d+)$/;
const CHILDREN = /^(\d+)(?: ?\.\. ?(\d+))? each(?:, (few have many))?$/;
const SHARE = /^ (\d+(?:\.\d+)?) ?$/;
const PLAIN = /^[^\s",]+$/;
const HOW =
  'Expected a number of records such as 30, or 0..8 each, or 0..8 each, few have many; of a choice the shares of its options: planned 6, boarding 1.';

/**
 * Reads what is wanted of seed records, a line a wish: the name of an entity or of a choice (`Sailing.status`), a
 * colon, and what is wanted. Empty lines are passed over.
 */
export function readPlan(text: string, model: Model, most: number): PlanRead {
  const plan = { counts: bareObject(), children: bareObject(), shares: bareObject() } as unknown as Wishes;
  const lines = new Map<string, number>();
  const problems: PlanTextProblem[] = [];
  for (const [index, written] of text.split('\n').entries()) {
    if (written.trim() === '') continue;
    const line = index + 1;
    const colon = written.indexOf(':');
    const name = written.slice(0, Math.max(colon, 0)).trim();
    const wish = written
      .slice(colon + 1)
      .trim()
      .replace(/\s+/g, ' ');
    if (name === '') problems.push({ line, message: 'Expected a name, and a colon.' });
    else if (lines.has(name)) problems.push({ line, message: `${name.slice(0, 80)} is told about twice.` });
    else if (takeWish(plan, name, wish)) lines.set(name, line);
    else problems.push({ line, message: HOW });
  }
  const misfits = planProblems(model, plan, most).map(({ path, message }) => ({
    line: lines.get(path[1] ?? '') ?? 1,
    message,
  }));
  const all = [...problems, ...misfits].sort((a, b) => a.line - b.line);
  return all.length === 0 ? { ok: true, plan } : { ok: false, problems: all };
}

/** Whether the wish was understood. */
function takeWish(plan: Wishes, name: string, wish: string): boolean {
  const [, count] = COUNT.exec(wish) ?? [];
  const [, least, most, few] = CHILDREN.exec(wish) ?? [];
  if (count !== undefined) plan.counts[name] = Number(count);
  else if (least !== undefined)
    plan.children[name] = {
      least: Number(least),
      most: Number(most ?? least),
      shape: few === undefined ? 'even' : 'tail',
    };
  else {
    const shares = readShares(wish);
    if (shares === null) return false;
    plan.shares[name] = shares;
  }
  return true;
}

function readShares(wish: string): Record<string, number> | null {
  const shares: [string, number][] = [];
  const known = new Set<string>();
  for (let at = 0; at < wish.length; at++) {
    const end = wish[at] === '"' ? quotedEnd(wish, at) : wish.indexOf(' ', at);
    if (end === -1) return null;
    const option = wish.slice(at, end);
    const name = option.startsWith('"') ? unquoted(option) : PLAIN.test(option) ? option : null;
    const comma = wish.indexOf(',', end);
    const next = comma === -1 ? wish.length : comma;
    const [, share] = SHARE.exec(wish.slice(end, next)) ?? [];
    if (name === null || share === undefined || known.has(name)) return null;
    known.add(name);
    shares.push([name, Number(share)]);
    at = wish[next + 1] === ' ' ? next + 1 : next;
  }
  return shares.length === 0 ? null : Object.fromEntries(shares);
}

function unquoted(text: string): string | null {
  try {
    return JSON.parse(text) as string;
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}

/** The lines that `readPlan` reads back. */
export const printPlan = ({ counts, children, shares }: SeedPlan): string =>
  [
    ...Object.entries(counts).map(([name, count]) => `${name}: ${count}`),
    ...Object.entries(children).map(([name, wanted]) => `${name}: ${childrenText(wanted)}`),
    ...Object.entries(shares).map(([name, all]) => `${name}: ${sharesText(all)}`),
  ].join('\n');

const childrenText = ({ least, most, shape }: Children): string =>
  `${least === most ? least : `${least}..${most}`} each${shape === 'tail' ? ', few have many' : ''}`;

const sharesText = (shares: Readonly<Record<string, number>>): string =>
  Object.entries(shares)
    .map(([option, share]) => `${PLAIN.test(option) ? option : JSON.stringify(option)} ${share}`)
    .join(', ');
