import type { Effect, FingerprintColumn } from '@isomeros/core/contract';
import { EffectMark } from '../app/parts/EffectMark.js';
import { Fingerprint } from '../app/parts/Fingerprint.js';

const MODEL = `entity Route
  name: text(1..120), required
entity Sailing
  departsAt: instant, required
each Route owns many Sailing as sailings`;

type Verbs = readonly (readonly [string, Effect])[];
const COLLECTION: Verbs = [
  ['list', 'safe'],
  ['create', 'neither'],
];
const ITEM: Verbs = [
  ['read', 'safe'],
  ['replace', 'idempotent'],
  ['change', 'neither'],
  ['remove', 'idempotent'],
];
const TREE: readonly (readonly [string, number, Verbs])[] = [
  ['/api/v1', 0, [['entry', 'safe']]],
  ['/routes', 1, COLLECTION],
  ['/{routeId}', 2, ITEM],
  ['/sailings', 3, COLLECTION],
  ['/{sailingId}', 4, ITEM],
];
const DRAWN: readonly FingerprintColumn[] = TREE.map(([, depth, verbs]) => ({
  depth,
  effects: verbs.map(([, effect]) => effect),
}));

/** What a design is, on one strip: a model, the paths that follow, and how they are drawn. */
export function Onboarding(): React.JSX.Element {
  return (
    <div className="teaching">
      <section>
        <header className="panel-head">
          <h2>What a design is</h2>
          <span className="quiet">first its model, in words</span>
        </header>
        <pre>{MODEL}</pre>
      </section>
      <section>
        <header className="panel-head">
          <h2>Its paths follow</h2>
          <span className="quiet">so do shapes, answers, links</span>
        </header>
        <div className="lesson-tree">
          {TREE.flatMap(([path, level, verbs]) => [
            <code key={path} style={{ gridColumn: 1, paddingLeft: level * 10 }}>
              {path}
            </code>,
            ...verbs.map(([verb, effect], index) => (
              <span key={path + verb} style={{ gridColumn: index + 2 }}>
                <EffectMark effect={effect} /> {verb}
              </span>
            )),
          ])}
        </div>
      </section>
      <section>
        <header className="panel-head">
          <h2>and are drawn like this</h2>
        </header>
        <div className="drawn">
          <Fingerprint columns={DRAWN} scale={1.9} />
          <dl>
            <dt>Along</dt>
            <dd>a column a path</dd>
            <dt>Up</dt>
            <dd>its operations</dd>
            <dt />
            <dd>
              <EffectMark effect="safe" /> safe <EffectMark effect="idempotent" /> idempotent
            </dd>
            <dt />
            <dd>
              <EffectMark effect="neither" /> neither
            </dd>
            <dt>Down</dt>
            <dd>how deep it lies</dd>
          </dl>
        </div>
      </section>
    </div>
  );
}
