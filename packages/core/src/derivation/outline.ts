import type { Arrangement } from '../arrangement/index.js';
import type { Outline } from '../contract/index.js';
import type { Model } from '../model/index.js';
import { startDerivation } from './context.js';
import { titleAndRoot } from './derive.js';
import { outlineOperations } from './operations/index.js';
import { Offers } from './operations/offers.js';
import { placeResources } from './place/index.js';

/** The outline of the contract that `derive` gives for the same input, in a fraction of its time. */
export function deriveOutline(model: Model, arrangement: Arrangement): Outline {
  const context = startDerivation(model, arrangement);
  const placed = placeResources(context);
  const { title, root } = titleAndRoot(context);
  const offers = new Offers(context, placed);
  return {
    title,
    root,
    resources: placed.map(
      ({ id, kind, canonical, path, parent, entity, via, transition, custom, word, reasons }) => ({
        id,
        kind,
        canonical,
        path,
        parent,
        entity,
        via,
        transition,
        custom,
        word,
        reasons,
        leftOut: offers.leftOut(id),
      }),
    ),
    operations: outlineOperations(context, offers),
  };
}
