import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { NO_CHOICES, withSetting, type Choices } from '@isomeros/core/arrangement';
import type { AnswerMessage, Port, TellProgress } from '../src/app/workers/protocol.js';
import { answerTo } from '../src/app/workers/serve.js';
import { Derivations } from '../src/design/derivation/derivations.js';
import { keyOfBasis, type DerivationProtocol } from '../src/design/derivation/protocol.js';
import {
  DerivationService,
  type Derived,
  type DerivationListener,
  type WrittenDesign,
} from '../src/design/derivation/service.js';

type Kind = keyof DerivationProtocol;

/** Answers in this thread what a worker would, a turn later, and remembers what was asked. */
class TestPort implements Port<DerivationProtocol> {
  readonly asked: Kind[] = [];
  /** What fails next, and why. */
  failing: { readonly kind: Kind; readonly why: string } | null = null;
  private readonly derivations = new Derivations();
  private number = 0;

  async ask<K extends Kind>(
    kind: K,
    asked: DerivationProtocol[K]['question'],
    progress: TellProgress = () => undefined,
  ): Promise<DerivationProtocol[K]['answer']> {
    this.asked.push(kind);
    const message: AnswerMessage =
      this.failing?.kind === kind
        ? { number: 0, kind: 'failed', why: this.failing.why }
        : answerTo(this.derivations.answerer, { number: ++this.number, kind, question: asked }, progress);
    this.failing = null;
    await Promise.resolve();
    if (message.kind === 'answer') return JSON.parse(message.json) as DerivationProtocol[K]['answer'];
    throw new Error(message.kind === 'failed' ? message.why : 'No answer.');
  }

  end(): void {
    this.asked.length = 0;
  }
}

const ROUTE = 'entity Route\n  code: text, key\n';
const SAILING = 'entity Sailing\n  number: integer\n';
const WRONG = 'entity Route\n  code: txt\n';

interface Told extends DerivationListener {
  readonly derived: Derived[];
  readonly failures: string[];
  breaks: number[];
}

let ports: TestPort[];
let service: DerivationService;
let told: Told;

beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'nextTick'] });
  ports = [];
  service = new DerivationService(() => {
    const port = new TestPort();
    ports.push(port);
    return port;
  });
  told = {
    derived: [],
    failures: [],
    breaks: [],
    onDerived: (derived) => told.derived.push(derived),
    onReviewed: ({ breaking }) => told.breaks.push(breaking),
    onFailed: (why) => told.failures.push(why),
  };
});
afterEach(() => {
  jest.useRealTimers();
});

const written = (text: string, changes: Partial<WrittenDesign> = {}): WrittenDesign => ({
  design: 'd1',
  text,
  validText: '',
  identities: {},
  choices: NO_CHOICES,
  arrangement: 'main',
  ...changes,
});
const pass = (milliseconds: number): Promise<void> => jest.advanceTimersByTimeAsync(milliseconds);
const derive = async (...all: readonly WrittenDesign[]): Promise<void> => {
  for (const one of all) service.derive(one, told);
  await pass(0);
};
/** The first path below the entry. */
const firstPath = (derived: Derived | undefined): string | undefined => derived?.outline?.resources[1]?.path;
const versioned = (version: string): Choices =>
  withSetting(NO_CHOICES, 'main', { level: 'arrangement' }, { name: 'version', value: version });

describe('a text as it is typed', () => {
  test('is derived at once, and reviewed once the typing pauses', async () => {
    await derive(written(ROUTE));
    expect([firstPath(told.derived[0]), told.breaks]).toEqual(['/routes', []]);
    await pass(200);
    expect(told.breaks).toEqual([0]);
  });

  test('of many that come while one is derived only the newest is', async () => {
    await derive(...['entity A\n', 'entity B\n', 'entity C\n', ROUTE].map((text) => written(text)));
    expect(told.derived.map((one) => firstPath(one))).toEqual(['/as', '/routes']);
  });

  test('with an error leaves the outline of the last valid one, and what is asked is about that', async () => {
    await derive(written(ROUTE));
    await derive(written(WRONG));
    expect([told.derived[1]?.reading.diagnostics.length, told.derived[1]?.outline]).toEqual([1, null]);
    expect((await service.contract())?.resources[1]?.path).toBe('/routes');
  });

  test('that had an error when it was opened follows from the last valid one that the server has', async () => {
    await derive(written(WRONG, { validText: SAILING }));
    expect(firstPath(told.derived[0])).toBe('/sailings');
  });

  test('is the same for two designs, yet not what is valid of them', async () => {
    await derive(written(ROUTE));
    await derive(written(WRONG, { design: 'd2', validText: SAILING }));
    expect(firstPath(told.derived[1])).toBe('/sailings');
  });

  test('is read once where only a decision changes, and derived anew, with an error in it, too', async () => {
    await derive(written(ROUTE));
    await derive(written(ROUTE, { choices: versioned('3') }));
    expect(told.derived[1]?.outline?.root).toContain('3');
    expect(told.derived[1]?.reading.model).toBe(told.derived[0]?.reading.model);
    await derive(written(WRONG, { choices: versioned('3') }));
    await derive(written(WRONG, { choices: versioned('4') }));
    expect([told.derived[2]?.outline, told.derived[3]?.outline?.root]).toEqual([
      null,
      expect.stringContaining('4'),
    ]);
  });

  test('that was derived last is told again to a page that begins anew, without being derived again', async () => {
    await derive(written(ROUTE));
    await pass(200);
    await derive(written(ROUTE));
    expect(told.derived).toHaveLength(2);
    expect(told.derived[1]).toEqual(told.derived[0]);
    expect(ports.flatMap(({ asked }) => asked).filter((kind) => kind === 'derive')).toHaveLength(1);
  });
});

describe('what would follow', () => {
  test('is worked out by a worker that begins with the first question, and knows the releases by then', async () => {
    await derive(written(ROUTE));
    await service.compareWith({ design: 'd1', releases: [] });
    expect(ports[2]?.asked).toEqual([]);
    const step = { kind: 'choices', choices: versioned('2') } as const;
    const ask = async (): Promise<string | undefined> =>
      (await service.consequences(written(ROUTE), [step]))[0]?.outline.root;
    expect(await ask()).toContain('2');
    await ask();
    expect(ports[2]?.asked).toEqual(['compareWith', 'consequences', 'consequences']);
    await service.compareWith({ design: 'd1', releases: [] });
    await ask();
    expect(ports[2]?.asked.slice(3)).toEqual(['compareWith', 'consequences']);
  });
});

describe('a derivation that fails', () => {
  test('says why, and the next one goes on', async () => {
    const [outlines] = ports;
    if (outlines === undefined) throw new Error('No port.');
    outlines.failing = { kind: 'derive', why: 'Out of memory.' };
    await derive(written(ROUTE));
    expect([told.failures, told.derived]).toEqual([['Out of memory.'], []]);
    await derive(written(ROUTE));
    expect(firstPath(told.derived[0])).toBe('/routes');
  });

  test('of the whole contract leaves the outline', async () => {
    const wholes = ports[1];
    if (wholes === undefined) throw new Error('No port.');
    wholes.failing = { kind: 'review', why: 'Out of memory.' };
    await derive(written(ROUTE));
    await pass(200);
    expect([told.failures, firstPath(told.derived[0])]).toEqual([['Out of memory.'], '/routes']);
  });

  test('costs no comparison: what fails is given the releases again', async () => {
    await derive(written(ROUTE));
    const wholes = ports[1];
    if (wholes === undefined) throw new Error('No port.');
    await service.compareWith({ design: 'd1', releases: [] });
    wholes.failing = { kind: 'changes', why: 'The worker broke down.' };
    await expect(service.changesSince('1.0')).rejects.toThrow('The worker broke down.');
    expect(await service.changesSince('1.0')).toBeNull();
    expect(wholes.asked).toEqual(['compareWith', 'review', 'changes', 'compareWith', 'changes']);
  });

  test('is told to the one who asked', async () => {
    await derive(written(ROUTE));
    const wholes = ports[1];
    if (wholes === undefined) throw new Error('No port.');
    wholes.failing = { kind: 'grid', why: 'Out of memory.' };
    await expect(service.grid('Route')).rejects.toThrow('Out of memory.');
  });
});

describe('what is derived', () => {
  const { answerer } = new Derivations();
  const none = (): void => undefined;
  const keyOf = (text: string, choices: Choices = NO_CHOICES): string =>
    keyOfBasis(written(text, { choices }));

  test('is remembered by text, identities, choices and arrangement', () => {
    const contract = answerer.contract({ basis: keyOf(ROUTE) }, none);
    expect(answerer.contract({ basis: keyOf(ROUTE) }, none)).toBe(contract);
    expect(answerer.contract({ basis: keyOf(ROUTE, versioned('2')) }, none)).not.toBe(contract);
  });

  test('is forgotten once others were asked for since', () => {
    const contract = answerer.contract({ basis: keyOf(ROUTE) }, none);
    for (const name of ['A', 'B', 'C', 'D']) answerer.outline({ basis: keyOf(`entity ${name}\n`) }, none);
    expect(answerer.contract({ basis: keyOf(ROUTE) }, none)).not.toBe(contract);
    expect(answerer.contract({ basis: keyOf(ROUTE) }, none)).toEqual(contract);
  });

  test('of steps from a text with errors is nothing', () => {
    const steps = [{ kind: 'choices', choices: versioned('2') }] as const;
    const [first] = answerer.consequences({ basis: keyOf(ROUTE), design: 'd1', steps }, none);
    expect(first?.outline.root).toContain('2');
    expect(answerer.consequences({ basis: keyOf(WRONG), design: 'd1', steps }, none)).toEqual([null]);
  });

  test('a question nobody answers is refused by its name', () => {
    expect(answerTo(answerer, { number: 1, kind: 'nothing', question: {} }, none)).toEqual({
      number: 1,
      kind: 'failed',
      why: 'Nothing answers “nothing”.',
    });
  });
});
