import {
  ASPECTS,
  escapePointer,
  exposureChoice,
  type Arrangement,
  type Aspect,
  type ChoiceProblem,
  type ExposureChoice,
  type Exposures,
} from '../../arrangement/index.js';
import { sameJson, type Entity, type Model } from '../../model/index.js';
import { exposureGrid, type GridRow } from './grid.js';

/**
 * What is newly chosen of what goes in and out, and the model does not allow. What was chosen `before`, in any
 * arrangement, stays: the model may have changed since, and then it has no effect.
 */
export function refusedExposures(
  model: Model,
  arrangement: Arrangement,
  before: readonly Exposures[],
): readonly ChoiceProblem[] {
  const { exposures } = arrangement;
  return model.declarations
    .filter((one): one is Entity => one.kind === 'entity' && Object.hasOwn(exposures, one.id))
    .flatMap((entity) => {
      const rows = exposureGrid(model, arrangement, entity.name);
      return rows.flatMap((row) => {
        const is = exposureChoice(exposures, entity.id, row.id);
        const were = before.map((all) => exposureChoice(all, entity.id, row.id));
        return ASPECTS.flatMap((aspect) => {
          const chosen = is[aspect];
          if (chosen === undefined || were.some((was) => sameJson(was[aspect], chosen))) return [];
          const message = refusal(row, aspect, chosen);
          if (message === null) return [];
          const pointer = ['exposures', entity.id, row.id, aspect].map(escapePointer).join('/');
          return [
            {
              pointer: `/${pointer}`,
              code: 'not-allowed',
              message: `${entity.name}.${row.name}: ${message}`,
            },
          ];
        });
      });
    });
}

/** Why a choice cannot be made; `null` where it can. */
function refusal({ options }: GridRow, aspect: Aspect, chosen: ExposureChoice[Aspect]): string | null {
  const allowed: readonly string[] = options[aspect];
  const wanted = typeof chosen === 'string' ? [chosen] : (chosen ?? []);
  if (wanted.every((one) => allowed.includes(one))) return null;
  const instead = allowed.length === 0 ? 'nothing' : allowed.join(', ');
  return `for ${aspect} the model allows ${instead}; ${wanted.join(', ')} was chosen.`;
}
