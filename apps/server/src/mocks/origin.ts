import type { Server } from 'node:http';
import { addressed, canShareOrigin, type Sibling } from '@isomeros/core/engine';
import { close, listen, portOf, type RequestHead, type RequestHandler } from '@isomeros/listener';

/** What is served at an origin: a part of a port. */
export interface OriginMember extends RequestHandler {
  /** What tells it apart. */
  readonly address: Sibling;
  /** Whether it is asked before the others where no version is named. */
  readonly unversioned: boolean;
  /** Answers for the origin as a whole, where several begin. */
  readonly entries: RequestHandler;
}

/** A loopback port with all that is served behind it, of whatever mocks; it closes with the last. */
export class Origin {
  private readonly members: OriginMember[] = [];
  private server: Server | null = null;
  /** Resolves once it listens. */
  private opening: Promise<void> | null = null;

  get port(): number {
    return this.server === null ? 0 : portOf(this.server);
  }

  get isEmpty(): boolean {
    return this.members.length === 0;
  }

  /** Whether requests to something can be told apart from those to all that is served here. */
  takes({ address }: OriginMember): boolean {
    return this.members.every((member) => canShareOrigin(member.address, address));
  }

  async open(port: number): Promise<void> {
    this.opening ??= listen((asked) => this.chosen(asked), port).then((server) => {
      this.server = server;
    });
    await this.opening;
  }

  add(member: OriginMember): void {
    this.members.push(member);
  }

  async remove(member: OriginMember): Promise<void> {
    const place = this.members.indexOf(member);
    if (place >= 0) this.members.splice(place, 1);
    const { server } = this;
    if (!this.isEmpty || server === null) return;
    this.server = null;
    await close(server);
  }

  /** What is served here beside something. */
  beside(member: OriginMember): readonly Sibling[] {
    return this.members.length < 2
      ? NONE
      : this.members.flatMap((other) => (other === member ? [] : [other.address]));
  }

  /** The members that cannot be told apart from one before them any more. */
  strays(): readonly OriginMember[] {
    return this.members.filter((member, place) =>
      this.members.slice(0, place).some((before) => !canShareOrigin(before.address, member.address)),
    );
  }

  private chosen(asked: RequestHead | null): RequestHandler {
    const [first] = this.members;
    if (first === undefined) throw new Error('Nothing is served at a port that is open.');
    if (this.members.length === 1 || asked === null) return first;
    const { target, header } = asked;
    const members = [...this.members].sort(
      (one, other) => Number(other.unversioned) - Number(one.unversioned),
    );
    const place = addressed(
      members.map(({ address }) => address),
      target,
      header,
    );
    if (place < 0 && /^\/?(?:\?|$)/.test(target)) return first.entries;
    return members[place] ?? first;
  }
}

const NONE: readonly Sibling[] = [];

/** The origins of all mocks, by their ports. */
export class Origins {
  private readonly byPort = new Map<number, Origin>();

  /**
   * Serves something at a port, beside what is served there already. Rejects with `EADDRINUSE` where it could not be told
   * apart, or somebody else has the port. 0: any free one.
   */
  async join(member: OriginMember, port: number): Promise<Origin> {
    const known = this.byPort.get(port);
    if (known !== undefined && !known.takes(member))
      throw Object.assign(new Error(`What is served on port ${port} has the same paths.`), {
        code: 'EADDRINUSE',
      });
    const origin = known ?? new Origin();
    origin.add(member);
    if (port !== 0) this.byPort.set(port, origin);
    try {
      await origin.open(port);
    } catch (error) {
      await origin.remove(member);
      if (origin.isEmpty) this.byPort.delete(port);
      throw error;
    }
    this.byPort.set(origin.port, origin);
    return origin;
  }

  async leave(member: OriginMember, origin: Origin): Promise<void> {
    const { port } = origin;
    const closed = origin.remove(member);
    if (origin.isEmpty) this.byPort.delete(port);
    await closed;
  }
}
