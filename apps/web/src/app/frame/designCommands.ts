import { pathOf } from '@isomeros/api';
import { CHOOSABLE_NAMES, rowOf } from '@isomeros/core/arrangement';
import { HELP_NAMES, helpOf, helpText } from '../help/help.js';
import { grouped } from '../parts/grouped.js';
import type { DerivedState } from '../../design/derivedSlice.js';
import type { Command } from './commands.js';

/** Everything the command line reaches while a design is open. */
export function designCommands(
  { outline, reading }: Pick<DerivedState, 'outline' | 'reading'>,
  id: string,
  /** Names and addresses. */
  stages: readonly (readonly [name: string, address: string])[],
  go: (to: string) => void,
): readonly Command[] {
  const base = `/designs/${id}`;
  const view = (label: string, to: string): Command => ({
    label,
    kind: 'view',
    run: () => {
      go(to);
    },
  });
  const download = (label: string, address: string): Command => ({
    label,
    kind: 'action',
    run: () => {
      window.location.assign(address);
    },
  });
  const views: Command[] = [
    ...stages.map(([name, address]) => view(name, address)),
    view('What is said of the API: servers, tags, errors', `${base}/contract?about=api`),
    view('Revisions', `${base}/revisions`),
    view('Designs', '/'),
    download('Download the design as one file', pathOf('GET /api/designs/{id}/file', { id })),
    download('Download the notation', pathOf('GET /api/designs/{id}/model.iso.txt', { id })),
  ];
  const settings = CHOOSABLE_NAMES.map((name): Command => {
    const { title, help } = rowOf(name);
    return {
      label: title,
      kind: 'setting',
      help,
      run: () => {
        go(`${base}/arrange?setting=${encodeURIComponent(title)}`);
      },
    };
  });
  const explained = HELP_NAMES.map((name): Command => {
    const { title, kind, view: of } = helpOf(name);
    const to = of === '' ? '/' : `${base}/${of}`;
    return { label: title, kind, help: helpText(name), run: () => go(to) };
  });
  const always = [...views, ...settings, ...explained];
  if (outline === null) return always;
  const operationsOf = grouped(outline.operations, ({ resource }) => resource);
  const resources = new Map(outline.resources.map((resource) => [resource.id, resource]));
  const canonical = new Map(
    outline.resources
      .filter(({ kind }) => kind === 'item' || kind === 'singleton')
      .map(({ entity, id: resource }) => [entity, resource]),
  );
  const lineOf = (entity: string): number =>
    reading?.places[canonical.get(entity)?.replace(/\/item$/, '') ?? '']?.line ?? 1;
  const entities = [...new Set(outline.resources.flatMap(({ entity }) => entity ?? []))];
  return [
    ...views,
    ...entities.map((name): Command => ({
      label: name,
      kind: 'entity',
      run: () => {
        go(`${base}/model?line=${lineOf(name)}`);
      },
    })),
    ...outline.resources.flatMap((resource): Command[] => {
      const [operation] = operationsOf.get(resource.id) ?? [];
      if (operation === undefined) return [];
      const run = (): void => {
        go(`${base}/contract?operation=${operation.id}`);
      };
      return [{ label: `${outline.root}${resource.path}`, kind: 'path', mono: true, run }];
    }),
    ...outline.operations.map((operation): Command => ({
      label: operation.id,
      kind: `${operation.method} ${resources.get(operation.resource)?.path ?? ''}`.slice(0, 44),
      run: () => {
        go(`${base}/contract?operation=${operation.id}`);
      },
    })),
    ...settings,
    ...explained,
  ];
}
