import type { TokenRole } from '../arrangement/index.js';
import type { SecurityScheme } from '../contract/index.js';

/** A token that was handed out. What is presented is stored nowhere: only a digest of it. */
export interface AccessToken {
  readonly digest: string;
  /** How it is presented. */
  readonly scheme: SecurityScheme;
  /** The record that it stands for. */
  readonly rid: number;
  /** The last moment at which it holds, in milliseconds since 1970. */
  readonly ends: number;
  readonly role: TokenRole | null;
}

/** What a request does to tokens. */
export type TokenChange =
  { readonly kind: 'issue'; readonly token: AccessToken } | { readonly kind: 'end'; readonly digest: string };

/** Where tokens are looked up. */
export interface TokenView {
  /** The token of a digest, while it holds. */
  tokenOf(digest: string, now: number): AccessToken | undefined;
}

/** So many tokens hold at once; the one handed out first ends where there would be more. */
export const MOST_TOKENS = 10_000;

/** The tokens of a dataset. */
export class AccessTokens {
  private readonly byDigest = new Map<string, AccessToken>();
  private readonly byRecord = new Map<number, Set<string>>();

  constructor(issued: Iterable<AccessToken> = []) {
    for (const token of issued) this.issue(token);
  }

  get(digest: string, now: number): AccessToken | undefined {
    const token = this.byDigest.get(digest);
    return token === undefined || token.ends < now ? undefined : token;
  }

  /** In the order in which they were handed out. */
  all(): Iterable<AccessToken> {
    return this.byDigest.values();
  }

  apply(changes: Iterable<TokenChange>): void {
    for (const change of changes)
      if (change.kind === 'issue') this.issue(change.token);
      else this.end(change.digest);
  }

  /** Ends every token that stands for a record. */
  endOf(rid: number): void {
    for (const digest of this.byRecord.get(rid) ?? []) this.byDigest.delete(digest);
    this.byRecord.delete(rid);
  }

  private issue(token: AccessToken): void {
    this.byDigest.set(token.digest, token);
    const known = this.byRecord.get(token.rid);
    if (known === undefined) this.byRecord.set(token.rid, new Set([token.digest]));
    else known.add(token.digest);
    const [oldest] = this.byDigest.keys();
    if (this.byDigest.size > MOST_TOKENS && oldest !== undefined) this.end(oldest);
  }

  private end(digest: string): void {
    const token = this.byDigest.get(digest);
    this.byDigest.delete(digest);
    if (token === undefined) return;
    const others = this.byRecord.get(token.rid);
    others?.delete(digest);
    if (others?.size === 0) this.byRecord.delete(token.rid);
  }
}
