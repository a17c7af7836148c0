import { indexContract } from '@isomeros/core/contract';
import type { DesignState } from '../../design/designSlice.js';
import type { Command } from './commands.js';

/** Everything the command line reaches while a design is open. */
export function designCommands(
  { contract, derived }: DesignState,
  id: string,
  go: (to: string) => void,
): readonly Command[] {
  const base = `/designs/${id}`;
  const views: Command[] = [
    {
      label: 'Model',
      kind: 'view',
      run: () => {
        go(`${base}/model`);
      },
    },
    {
      label: 'Contract',
      kind: 'view',
      run: () => {
        go(`${base}/contract`);
      },
    },
    {
      label: 'Mock',
      kind: 'view',
      run: () => {
        go(`${base}/mock`);
      },
    },
    {
      label: 'Designs',
      kind: 'view',
      run: () => {
        go('/');
      },
    },
  ];
  if (contract === null) return views;
  const { canonical, operationsOf, resources } = indexContract(contract);
  const lineOf = (entity: string): number =>
    derived?.places[canonical.get(entity)?.id.replace(/\/item$/, '') ?? '']?.line ?? 1;
  const entities = [...new Set(contract.resources.flatMap(({ entity }) => entity ?? []))];
  return [
    ...views,
    ...entities.map((name): Command => ({
      label: name,
      kind: 'entity',
      run: () => {
        go(`${base}/model?line=${lineOf(name)}`);
      },
    })),
    ...contract.resources.flatMap((resource): Command[] => {
      const [operation] = operationsOf.get(resource.id) ?? [];
      if (operation === undefined) return [];
      const run = (): void => {
        go(`${base}/contract?operation=${operation.id}`);
      };
      return [{ label: `${contract.root}${resource.path}`, kind: 'path', mono: true, run }];
    }),
    ...contract.operations.map((operation): Command => ({
      label: operation.id,
      kind: `${operation.method} ${resources.get(operation.resource)?.path ?? ''}`.slice(0, 44),
      run: () => {
        go(`${base}/contract?operation=${operation.id}`);
      },
    })),
  ];
}
