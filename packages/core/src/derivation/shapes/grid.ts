import {
  ASPECTS,
  exposureChoice,
  type Arrangement,
  type Aspect,
  type Exposure,
} from '../../arrangement/index.js';
import type { Reasons } from '../../contract/index.js';
import { indexModel, type Model } from '../../model/index.js';
import { startDerivation } from '../context.js';
import { exposureOf, memberId, optionsOf, type ExposureOptions } from './exposure.js';
import { traitsOf } from './members.js';

/** A member as the exposure grid shows it: one row, a cell an aspect. */
export interface GridRow {
  /** The identity under which choices for it are filed. */
  readonly id: string;
  readonly name: string;
  /** What it would be called if nobody had chosen. */
  readonly derived: string;
  readonly exposed: Exposure;
  /** What each cell can be; a cell with one answer is settled by the model. */
  readonly options: ExposureOptions;
  /** The cells that somebody chose. */
  readonly chosen: readonly Aspect[];
  /** What was chosen to call it, whether it can be or not. */
  readonly called: string | null;
  readonly reasons: Reasons;
}

/** What goes in and what comes out of the records of an entity. Empty for an entity that is not there. */
export function exposureGrid(model: Model, arrangement: Arrangement, entity: string): readonly GridRow[] {
  const context = startDerivation(model, arrangement);
  const found = indexModel(model).entities.get(entity);
  if (found === undefined) return [];
  return traitsOf(context, found).map((trait) => {
    const id = memberId(trait);
    const choice = exposureChoice(arrangement.exposures, found.id, id);
    const exposed = exposureOf(trait, choice);
    return {
      id,
      name: trait.name,
      derived: trait.derived,
      called: choice.name ?? null,
      exposed,
      options: optionsOf(trait, exposed.out === 'yes'),
      chosen: ASPECTS.filter((aspect) => choice[aspect] !== undefined),
      reasons: trait.reasons,
    };
  });
}
