import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import type { Design } from '@isomeros/api';
import { NO_CHOICES, withSetting, type Choices } from '@isomeros/core/arrangement';
import { configureStore } from '@reduxjs/toolkit';

import { serverApi } from '../src/app/api/serverApi.js';
import { autosaveMiddleware } from '../src/design/autosave.js';
import {
  choicesMade,
  choicesRedone,
  choicesUndone,
  documentReducer,
  conflictOverruled,
  openDesign,
  textEdited,
} from '../src/design/documentSlice.js';
import { saveStateOf, savingReducer } from '../src/design/savingSlice.js';

/** What was asked of the server: method, address, body and the revision it was meant for. */
interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
  readonly revision: string | null;
}

const BASE = {
  id: 'd1',
  name: 'Ferries',
  text: 'entity Route\n',
  validText: 'entity Route\n',
  identities: {},
  choices: NO_CHOICES,
  revision: 1,
  changedAt: '2026-06-14T09:12:00.000Z',
} as unknown as Design;

/** A server that holds one design, and answers as it is told to. */
class TestServer {
  readonly asked: Asked[] = [];
  design = BASE;
  /** What is answered next in place of what was asked for. */
  refusals: Response[] = [];
  /** Answers wait for it while there is one. */
  held: Promise<void> | null = null;

  readonly fetch = async (address: string | URL | Request, init: RequestInit = {}): Promise<Response> => {
    const method = init.method ?? 'GET';
    const path = address as string;
    const body: unknown = typeof init.body === 'string' ? JSON.parse(init.body) : null;
    if (method !== 'GET')
      this.asked.push({ method, path, body, revision: new Headers(init.headers).get('If-Match') });
    if (this.held !== null) await this.held;
    const refusal = this.refusals.shift();
    if (refusal !== undefined) return refusal;
    if (method === 'PUT') {
      const changes = path.endsWith('/model') ? (body as Partial<Design>) : { choices: body as Choices };
      this.design = { ...this.design, ...changes, revision: this.design.revision + 1 };
    }
    return Response.json(this.design);
  };
}

const refusal = (status: number): Response =>
  new Response(JSON.stringify({ type: 'about:blank', title: 'Refused', status, detail: 'Refused.' }), {
    status,
    headers: { 'content-type': 'application/problem+json' },
  });

let server: TestServer;
const store = () =>
  configureStore({
    reducer: { document: documentReducer, saving: savingReducer, server: serverApi.reducer },
    middleware: (defaults) => defaults().prepend(autosaveMiddleware()).concat(serverApi.middleware),
  });
let page: ReturnType<typeof store>;

beforeEach(async () => {
  jest.useFakeTimers({ doNotFake: ['queueMicrotask', 'nextTick'] });
  server = new TestServer();
  jest.spyOn(globalThis, 'fetch').mockImplementation(server.fetch);
  page = store();
  await page.dispatch(openDesign('d1'));
});
afterEach(() => {
  jest.useRealTimers();
  jest.restoreAllMocks();
});

const keeping = (): string => saveStateOf(page.getState()).kind;
const pass = (milliseconds: number): Promise<void> => jest.advanceTimersByTimeAsync(milliseconds);
const cased = (memberCase: string): Choices =>
  withSetting(NO_CHOICES, 'main', { level: 'arrangement' }, { name: 'memberCase', value: memberCase });

describe('what is typed', () => {
  test('is saved once the typing pauses', async () => {
    for (const text of ['entity R', 'entity Ro', 'entity Rou']) {
      page.dispatch(textEdited(text));
      await pass(200);
    }
    expect([server.asked, keeping()]).toEqual([[], 'waiting']);
    await pass(500);
    expect(server.asked).toEqual([
      { method: 'PUT', path: '/api/designs/d1/model', body: { text: 'entity Rou' }, revision: '"1"' },
    ]);
    expect([keeping(), page.getState().document.design?.revision]).toEqual(['saved', 2]);
  });

  test('while a save is under way is saved behind it, for the revision it made', async () => {
    let go = (): void => undefined;
    server.held = new Promise((resolve) => {
      go = resolve;
    });
    page.dispatch(textEdited('entity A'));
    await pass(600);
    expect(keeping()).toBe('saving');
    page.dispatch(textEdited('entity B'));
    await pass(600);
    expect(server.asked).toHaveLength(1);
    server.held = null;
    go();
    await pass(600);
    expect(server.asked.map(({ body, revision }) => [body, revision])).toEqual([
      [{ text: 'entity A' }, '"1"'],
      [{ text: 'entity B' }, '"2"'],
    ]);
    expect(keeping()).toBe('saved');
  });

  test('and taken back again is not saved at all', async () => {
    page.dispatch(textEdited('entity X'));
    await pass(100);
    page.dispatch(textEdited(BASE.text));
    await pass(600);
    expect([server.asked, keeping()]).toEqual([[], 'saved']);
  });
});

describe('a save that fails', () => {
  test('is tried again until the server takes it', async () => {
    server.refusals = [refusal(503), refusal(503)];
    page.dispatch(textEdited('entity A'));
    await pass(600);
    expect(keeping()).toBe('failed');
    await pass(3_100);
    expect([server.asked.length, keeping()]).toEqual([2, 'failed']);
    await pass(3_100);
    expect([server.asked.length, keeping()]).toEqual([3, 'saved']);
  });

  test('because somebody else saved is not repeated, before it is decided whose text is kept', async () => {
    server.refusals = [refusal(412)];
    page.dispatch(textEdited('entity Mine'));
    await pass(600);
    page.dispatch(textEdited('entity Mine too'));
    await pass(10_000);
    expect([server.asked.length, keeping()]).toEqual([1, 'conflict']);
    server.design = { ...BASE, text: 'entity Theirs', revision: 7 };
    page.dispatch(conflictOverruled(server.design));
    await pass(600);
    expect(server.asked.at(-1)).toMatchObject({ body: { text: 'entity Mine too' }, revision: '"7"' });
    expect(keeping()).toBe('saved');
  });
});

describe('what is decided', () => {
  test('is saved behind the text, each for the revision before it', async () => {
    page.dispatch(textEdited('entity A'));
    page.dispatch(choicesMade(cased('snake')));
    await pass(600);
    expect(server.asked.map(({ path, revision }) => [path, revision])).toEqual([
      ['/api/designs/d1/model', '"1"'],
      ['/api/designs/d1/choices', '"2"'],
    ]);
    expect(keeping()).toBe('saved');
  });

  test('is taken back and made again, step by step, until something else is decided', () => {
    const choices = (): Choices => page.getState().document.choices;
    page.dispatch(choicesMade(cased('snake')));
    page.dispatch(choicesMade(cased('pascal')));
    page.dispatch(choicesUndone());
    expect(choices()).toEqual(cased('snake'));
    page.dispatch(choicesUndone());
    page.dispatch(choicesUndone());
    expect(choices()).toEqual(NO_CHOICES);
    page.dispatch(choicesRedone());
    expect(choices()).toEqual(cased('snake'));
    page.dispatch(choicesMade(cased('kebab')));
    page.dispatch(choicesRedone());
    expect(choices()).toEqual(cased('kebab'));
  });
});
