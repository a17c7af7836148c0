import {
  canBeSingle,
  indexModel,
  isSingleton,
  ownsItself,
  type Model,
  type ModelIndex,
  type PairsWith,
  type Relationship,
} from '../model/index.js';

/** For each kind of statement, the places it can be given; the first is what nobody needs to choose. */
export const PLACEMENTS = {
  /** An entity that nothing owns. */
  entity: ['root', 'singleton', 'hidden'],
  /** What is owned, many of it. */
  owned: ['nested', 'shallow', 'flat', 'both', 'inline', 'hidden'],
  /** What an entity owns many of while it is of its own kind. */
  tree: ['nested', 'hidden'],
  /** What is owned, one of it. */
  slot: ['singleton', 'inline', 'hidden'],
  reference: ['member', 'read', 'inline'],
  /** The list at the far end of a reference or a pairing. */
  back: ['listed', 'off'],
  pairing: ['near', 'both-sides', 'far', 'hidden'],
  transition: ['action', 'change', 'hidden'],
} as const;

export type SubjectKind = keyof typeof PLACEMENTS;
export type PlacementFor<Kind extends SubjectKind> = (typeof PLACEMENTS)[Kind][number];
export type Placement = PlacementFor<SubjectKind>;

/** Places that somebody chose, by the id of the subject. */
export type Placements = { readonly [name: string]: Placement };

/** Something that can be placed. */
export interface Subject {
  /** The identity of the statement; a way back adds `/back` to it. */
  readonly id: string;
  readonly kind: SubjectKind;
  /** The identity of the statement it comes from. */
  readonly statement: string;
}

export const backSubject = (relationship: string): string => `${relationship}/back`;

export const isPlacement = (place: unknown): place is Placement => ALL.has(place);
const ALL: ReadonlySet<unknown> = new Set(Object.values(PLACEMENTS).flat());

export interface ResolvedPlacement<Kind extends SubjectKind> {
  readonly place: PlacementFor<Kind>;
  readonly level: 'default' | 'arrangement';
}

/** Where something stands in an arrangement. A place that its kind does not have counts as not chosen. */
export function resolvePlacement<Kind extends SubjectKind>(
  placements: Placements,
  kind: Kind,
  id: string,
): ResolvedPlacement<Kind> {
  const options: readonly PlacementFor<Kind>[] = PLACEMENTS[kind];
  const chosen = Object.hasOwn(placements, id)
    ? options.find((place) => place === placements[id])
    : undefined;
  const [usual] = options;
  if (usual === undefined) throw new Error(`There is no place for a ${kind}.`);
  return chosen === undefined ? { place: usual, level: 'default' } : { place: chosen, level: 'arrangement' };
}

/** Everything of a model that can be placed, in the order of the text. */
export function subjectsOf(model: Model): readonly Subject[] {
  const index = indexModel(model);
  return model.declarations.flatMap((declaration): Subject[] => {
    switch (declaration.kind) {
      case 'value':
        return [];
      case 'entity': {
        const owner = index.ownerOf.get(declaration.name);
        const own: Subject[] =
          owner === undefined || ownsItself(owner)
            ? [{ id: declaration.id, kind: 'entity', statement: declaration.id }]
            : [];
        const moves = declaration.attributes.flatMap(({ lifeCycle }) =>
          (lifeCycle ?? []).map(({ id }): Subject => ({ id, kind: 'transition', statement: id })),
        );
        return [...own, ...moves];
      }
      case 'owns':
      case 'refers':
      case 'pairs':
        return relationshipSubjects(declaration, isSingleton(index, declaration.to));
    }
  });
}

function relationshipSubjects(relationship: Relationship, intoSlot: boolean): Subject[] {
  const { id } = relationship;
  const subject = (kind: SubjectKind): Subject => ({ id, kind, statement: id });
  const back: Subject = { id: backSubject(id), kind: 'back', statement: id };
  switch (relationship.kind) {
    case 'owns':
      if (ownsItself(relationship)) return [subject('tree')];
      return [subject(intoSlot ? 'slot' : 'owned')];
    case 'refers':
      return relationship.back === null ? [subject('reference')] : [subject('reference'), back];
    case 'pairs':
      return relationship.back === null ? [subject('pairing')] : [subject('pairing'), back];
  }
}

/** What is of its own kind, or what others lead to, is never the only one. */
export const entityPlacements = (index: ModelIndex, id: string): readonly PlacementFor<'entity'>[] => {
  const entity = [...index.entities.values()].find((known) => known.id === id);
  return entity !== undefined && canBeSingle(index, entity)
    ? PLACEMENTS.entity
    : PLACEMENTS.entity.filter((place) => place !== 'singleton');
};

/** Without a way back a pairing has no far side. */
export const pairingPlacements = ({ back }: PairsWith): readonly PlacementFor<'pairing'>[] =>
  back === null ? ['near', 'hidden'] : PLACEMENTS.pairing;

/** What each place is called, and what it means for the paths. */
const PLACE_WORDS: {
  readonly [Kind in SubjectKind]: Readonly<
    Record<PlacementFor<Kind>, { readonly label: string; readonly means: string }>
  >;
} = {
  entity: {
    root: { label: 'root', means: 'a collection at the root, items below it' },
    singleton: { label: 'singleton', means: 'one record at the root, without an id' },
    hidden: { label: 'not exposed', means: 'no path, and nothing leads to it' },
  },
  owned: {
    nested: { label: 'nested', means: 'listed and read below its owner' },
    shallow: { label: 'shallow', means: 'listed below its owner, read at the root' },
    flat: { label: 'flat', means: 'everything at the root; the owner is asked for' },
    both: { label: 'both', means: 'stays nested, and readable at the root' },
    inline: { label: 'inline', means: 'inside its owner, and written with it; no path' },
    hidden: { label: 'not exposed', means: 'no path, and nothing leads to it' },
  },
  tree: {
    nested: { label: 'nested', means: 'all at the root, children listed below each' },
    hidden: { label: 'not exposed', means: 'all at the root, children not listed' },
  },
  slot: {
    singleton: { label: 'singleton', means: 'one place below its owner, without an id' },
    inline: { label: 'inline', means: 'inside its owner, and written with it; no path' },
    hidden: { label: 'not exposed', means: 'no path of its own' },
  },
  reference: {
    member: { label: 'member', means: 'a member that holds the key' },
    read: { label: 'read', means: 'a member, and a path to read what it points at' },
    inline: { label: 'inline', means: 'a member, and what it points at inside the answer' },
  },
  back: {
    listed: { label: 'listed', means: 'what points here is listed' },
    off: { label: 'not listed', means: 'no list at this end' },
  },
  pairing: {
    near: { label: 'near side', means: 'pairs are kept where the sentence begins' },
    'both-sides': { label: 'both sides', means: 'pairs are kept at either side' },
    far: { label: 'far side', means: 'pairs are kept at the other side' },
    hidden: { label: 'not exposed', means: 'pairs have no path' },
  },
  transition: {
    action: { label: 'action', means: 'a path of its own, by POST' },
    change: { label: 'by change', means: 'replacing or changing the attribute moves it' },
    hidden: { label: 'not exposed', means: 'clients cannot move it' },
  },
};

/** The words for the place of a subject. A place that its kind does not have is called by its name. */
export function placementWords(
  kind: SubjectKind,
  place: Placement,
): { readonly label: string; readonly means: string } {
  const words: Readonly<Partial<Record<Placement, { label: string; means: string }>>> = PLACE_WORDS[kind];
  return words[place] ?? { label: place, means: '' };
}
