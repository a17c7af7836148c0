import { valueOf, type DerivationContext } from '../context.js';
import { plainParameter } from '../names/parameters.js';
import { pathTemplate, type PlacedResource } from './tree.js';

/** Kinds whose last id is that of the record they are about. */
const OF_ITS_RECORD: ReadonlySet<PlacedResource['kind']> = new Set(['item', 'pair', 'action']);

/** The resources with the id of what each is about called after its key alone, where that was chosen. */
export function withPlainIds(
  context: DerivationContext,
  resources: readonly PlacedResource[],
): readonly PlacedResource[] {
  if (valueOf(context, 'parameterNames') === 'with entity') return resources;
  return resources.map((resource) => {
    const { segments, kind } = resource;
    const entity = context.index.entities.get(resource.entity ?? '');
    const at = segments.findLastIndex((segment) => segment.kind === 'id');
    const last = segments[at];
    if (entity === undefined || last?.kind !== 'id' || !OF_ITS_RECORD.has(kind)) return resource;
    const parameter = plainParameter(context, entity);
    const isTaken = segments.some((one) => one.kind === 'id' && one.parameter === parameter);
    if (last.entity !== entity.name || isTaken) return resource;
    const renamed = segments.with(at, { ...last, parameter });
    return { ...resource, segments: renamed, path: pathTemplate(renamed) };
  });
}
