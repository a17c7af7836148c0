import type { SettingPlace } from '../../arrangement/index.js';
import type { Operation, PageForm, Shape } from '../../contract/index.js';
import { memoize } from '../../model/index.js';
import { hasOwnSettings, valueOf, type DerivationContext } from '../context.js';
import { pageOf } from '../shapes/members.js';

/** The form of lists without settings of their own. */
export const usualForm = memoize((context: DerivationContext): PageForm => makeForm(context));

/** The form in which a list is answered. */
export function formOf(context: DerivationContext, { id }: { readonly id: string }): PageForm {
  const at = { resource: id, verb: 'list' };
  if (!hasOwnSettings(context, at)) return usualForm(context);
  const [own, usual] = [makeForm(context, at), usualForm(context)];
  const parts = [
    ...(own.style === usual.style ? [] : [own.style === 'none' ? 'whole' : own.style]),
    ...(own.envelope === usual.envelope ? [] : [own.envelope]),
    ...(own.totals === usual.totals
      ? []
      : [own.totals === 'none' ? 'uncounted' : `counted-in-${own.totals}`]),
  ];
  return { ...own, variant: parts.join('-') };
}

function makeForm(context: DerivationContext, at?: SettingPlace): PageForm {
  const style = valueOf(context, 'pageStyle', at);
  return {
    style,
    ceiling: style === 'ceiling' ? valueOf(context, 'ceiling', at) : null,
    totals: valueOf(context, 'totals', at),
    oversize: valueOf(context, 'oversize', at),
    envelope: valueOf(context, 'envelope', at),
    variant: '',
  };
}

/** The name of a page in a form. */
export const inForm = (page: string, { variant }: PageForm): string =>
  variant === '' ? page : `${page}.${variant}`;

/** The pages of lists whose form is not that of the arrangement. */
export function variantShapes(
  context: DerivationContext,
  shapes: readonly Shape[],
  operations: readonly Operation[],
): readonly Shape[] {
  const byName = new Map(shapes.map((shape) => [shape.name, shape]));
  const made = new Map<string, Shape>();
  for (const { returns, paging, custom } of operations) {
    if (returns === null || paging === null || paging.variant === '' || custom !== null) continue;
    const usual = byName.get(returns.slice(0, -paging.variant.length - 1));
    if (usual === undefined || made.has(returns)) continue;
    made.set(returns, pageOf(context, { ...usual, name: returns }, paging));
  }
  return [...made.values()];
}
