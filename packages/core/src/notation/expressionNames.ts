import { AGGREGATES, camelCase, derivedRole } from '../model/index.js';
import type { Token } from './tokens.js';

/** A name in an expression: a member of a block, or what a member of a block is compared with. */
export type ExpressionName =
  | { readonly kind: 'member'; readonly block: string; readonly token: Token }
  | { readonly kind: 'state'; readonly block: string; readonly attribute: string; readonly token: Token };

/** Where the roles of a text lead, by the names of blocks and roles. */
export class RoleTargets {
  private readonly targets = new Map<string, string>();

  /** Reads the tokens of a sentence, in which `verb` words stand between its first entity and the cardinality. */
  sentence(tokens: readonly Token[], verb: number): void {
    const from = tokens[1]?.text ?? '';
    const cardinality = tokens[2 + verb]?.text;
    const to = tokens[3 + verb]?.text ?? '';
    const named = (word: string, before?: string): string | undefined =>
      tokens.find((_, index) => {
        const [one, other] = [tokens[index - 1]?.text, tokens[index - 2]?.text];
        return one === word && (before === undefined ? other !== 'back' : other === before);
      })?.text;
    const role = named('as') ?? derivedRole(to, cardinality);
    this.targets.set(`${from}.${role}`, to);
    const back = named('as', 'back') ?? (tokens[2]?.text === 'owns' ? camelCase(from) : undefined);
    if (back !== undefined) this.targets.set(`${to}.${back}`, from);
  }

  of(block: string, role: string): string {
    return this.targets.get(`${block}.${role}`) ?? '';
  }
}

/** The names in what follows `computed`, in an attribute of a block. */
export function namesInExpression(
  block: string,
  tokens: readonly Token[],
  targets: RoleTargets,
): readonly ExpressionName[] {
  const found: ExpressionName[] = [];
  let end = block;
  for (let at = 0; at < tokens.length; at++) {
    const token = tokens[at];
    if (token?.kind !== 'word') continue;
    const isAggregate = AGGREGATES.some((name) => name === token.text) && tokens[at + 1]?.text === 'of';
    const isCompared = (token.text === 'where' || token.text === 'and') && end !== block;
    if (!isAggregate && !isCompared) {
      found.push({ kind: 'member', block, token });
      continue;
    }
    const start = at + (isAggregate ? 2 : 1);
    const path = pathAt(tokens, start);
    at = start + Math.max(0, 2 * path.length - 2);
    const last = path.at(-1);
    if (last === undefined) continue;
    // What stands alone behind `where` is of the records at the end.
    let of = isCompared && path.length === 1 ? end : block;
    for (const step of path.slice(0, -1)) {
      found.push({ kind: 'member', block: of, token: step });
      of = targets.of(of, step.text);
    }
    found.push({ kind: 'member', block: of, token: last });
    if (isAggregate) end = token.text === 'count' ? targets.of(of, last.text) : of;
    const [operator, value] = [tokens[at + 1], tokens[at + 2]];
    if (!isCompared || operator === undefined || value === undefined) continue;
    found.push({ kind: 'state', block: of, attribute: last.text, token: value });
    at += 2;
  }
  return found;
}

/** Words joined by dots. */
function pathAt(tokens: readonly Token[], start: number): readonly Token[] {
  const path: Token[] = [];
  for (let at = start; tokens[at]?.kind === 'word'; at += 2) {
    path.push(tokens[at] as Token);
    if (tokens[at + 1]?.text !== '.') break;
  }
  return path;
}
