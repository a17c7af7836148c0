import type { Block } from './block.js';
import { innermost } from './checkAttributes.js';
import { MODEL_LIMITS } from './modelLimits.js';
import type { ModelCheck } from './modelCheck.js';

/** A value on the way down to what it contains. */
interface Visit {
  readonly block: Block;
  /** The attribute it is at. */
  at: number;
  /** How deep what was seen of it nests, itself counted. */
  depth: number;
}

/**
 * Leaves out attributes by which a value contains itself, however far down, or nests deeper than a body is read.
 * Each value is gone through once, without recursion.
 */
export function checkValues(values: ReadonlyMap<string, Block>, checking: ModelCheck): void {
  const depths = new Map<string, number>();
  for (const value of values.values()) {
    const trail: Visit[] = depths.has(value.name) ? [] : [{ block: value, at: 0, depth: 1 }];
    for (let visit = trail.at(-1); visit !== undefined; visit = trail.at(-1)) {
      const { block, at } = visit;
      const attribute = block.attributes[at];
      if (attribute === undefined) {
        depths.set(block.name, visit.depth);
        trail.pop();
        continue;
      }
      const type = innermost(attribute.type);
      const inner = type.kind === 'value' ? values.get(type.name) : undefined;
      const depth = inner === undefined ? 0 : depths.get(inner.name);
      if (inner !== undefined && depth === undefined) {
        const again = trail.findIndex((above) => above.block === inner);
        if (again === -1) trail.push({ block: inner, at: 0, depth: 1 });
        else leaveOutCircle(trail, again, checking);
      } else if ((depth ?? 0) >= MODEL_LIMITS.nesting) {
        const message = `Values are at most ${MODEL_LIMITS.nesting} deep inside of each other.`;
        checking.report(attribute.id, 'model.too-large', message);
        block.attributes.splice(at, 1);
      } else {
        visit.depth = Math.max(visit.depth, (depth ?? 0) + 1);
        visit.at++;
      }
    }
  }
}

/** Takes the attribute out by which the value at an index of the trail leads back to itself. */
function leaveOutCircle(trail: Visit[], index: number, checking: ModelCheck): void {
  const visit = trail[index];
  const attribute = visit?.block.attributes[visit.at];
  if (visit === undefined || attribute === undefined) return;
  const { block, at } = visit;
  const message = `${block.name} contains itself through ${attribute.name}.`;
  checking.report(attribute.id, 'type.recursive', message);
  block.attributes.splice(at, 1);
  trail.splice(index + 1);
}
