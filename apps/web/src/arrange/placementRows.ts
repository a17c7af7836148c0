import {
  backSubject,
  pairingPlacements,
  resolvePlacement,
  entityPlacements,
  PLACEMENTS,
  placementWords,
  type Placement,
  type Placements,
  type SubjectKind,
} from '@isomeros/core/arrangement';
import {
  indexModel,
  isSingleton,
  ownsItself,
  roleOf,
  type Model,
  type Owns,
  type PairsWith,
  type RefersTo,
} from '@isomeros/core/model';

/** A place for one subject. */
export interface Placing {
  readonly of: SubjectKind;
  readonly subject: string;
  readonly place: Placement;
}

/** One answer to where something stands; a reference with a way back is placed at both its ends. */
export interface PlacementOption {
  readonly key: string;
  readonly label: string;
  readonly means: string;
  readonly placings: readonly Placing[];
}

export interface PlacementRow {
  readonly kind: 'placement';
  /** The identity of the statement. */
  readonly id: string;
  readonly label: string;
  readonly options: readonly PlacementOption[];
  /** The key of the option that holds. */
  readonly value: string;
  readonly level: 'default' | 'arrangement';
}

export interface GroupRow {
  readonly kind: 'group';
  readonly id: string;
  readonly label: string;
  /** What the places of the group decide. */
  readonly about: string;
}

/** Everything that can be placed, grouped by what kind of statement it is. Groups without rows are left out. */
export function placementRows(model: Model, placements: Placements): readonly (GroupRow | PlacementRow)[] {
  const index = indexModel(model);
  const { relationships, entities, ownerOf } = index;
  const owns = relationships.filter((one): one is Owns => one.kind === 'owns');
  const refers = relationships.filter((one): one is RefersTo => one.kind === 'refers');
  const pairs = relationships.filter((one): one is PairsWith => one.kind === 'pairs');
  const free = [...entities.values()].filter(({ name }) => {
    const owner = ownerOf.get(name);
    return owner === undefined || ownsItself(owner);
  });
  const moves = [...entities.values()].flatMap((entity) =>
    entity.attributes.flatMap(({ lifeCycle }) =>
      (lifeCycle ?? []).map(({ id, name }) => ({ id, label: `${entity.name} ${name}` })),
    ),
  );
  return [
    ...group(
      'owns',
      'the owned are placed',
      owns.map((one) => ownsRow(model, placements, one)),
    ),
    ...group(
      'refers to',
      'the way back is at',
      refers.map((one) => refersRow(placements, one)),
    ),
    ...group(
      'pairs with',
      'pairs are kept at',
      pairs.map((one) => pairsRow(placements, one)),
    ),
    ...group(
      'life cycles',
      'changed by',
      moves.map(({ id, label }) => simpleRow(placements, 'transition', id, label)),
    ),
    ...group(
      'owned by nothing',
      'placed at',
      free.map(({ id, name }) => simpleRow(placements, 'entity', id, name, entityPlacements(index, id))),
    ),
  ];
}

const group = (label: string, about: string, rows: readonly PlacementRow[]): (GroupRow | PlacementRow)[] =>
  rows.length === 0 ? [] : [{ kind: 'group', id: `group ${label}`, label, about }, ...rows];

function optionOf(of: SubjectKind, subject: string, place: Placement): PlacementOption {
  return { key: place, ...placementWords(of, place), placings: [{ of, subject, place }] };
}

function simpleRow(
  placements: Placements,
  of: SubjectKind,
  id: string,
  label: string,
  places: readonly Placement[] = PLACEMENTS[of],
): PlacementRow {
  const { place, level } = resolvePlacement(placements, of, id);
  return {
    kind: 'placement',
    id,
    label,
    options: places.map((one) => optionOf(of, id, one)),
    value: places.includes(place) ? place : (places[0] ?? place),
    level,
  };
}

function ownsRow(model: Model, placements: Placements, owns: Owns): PlacementRow {
  const of = ownsItself(owns) ? 'tree' : isSingleton(indexModel(model), owns.to) ? 'slot' : 'owned';
  return simpleRow(placements, of, owns.id, `${owns.from} ${roleOf(owns)}`);
}

const pairsRow = (placements: Placements, pairs: PairsWith): PlacementRow =>
  simpleRow(placements, 'pairing', pairs.id, `${pairs.from} ${roleOf(pairs)}`, pairingPlacements(pairs));

/** Both ends of a reference: the list at its target, and whether its target is read below it. */
function refersRow(placements: Placements, refers: RefersTo): PlacementRow {
  const { id, back } = refers;
  const near = resolvePlacement(placements, 'reference', id);
  const far = back === null ? null : resolvePlacement(placements, 'back', backSubject(id));
  const backs = back === null ? [null] : PLACEMENTS.back;
  const options = PLACEMENTS.reference.flatMap((place) =>
    backs.map((listed): PlacementOption => {
      const read = place === 'read' ? roleOf(refers) : null;
      const list = listed === 'listed' && back !== null ? back : null;
      return {
        key: `${place} ${listed ?? ''}`,
        label: [list ?? 'no list', ...(read === null ? [] : [read])].join(' + '),
        means: [
          list === null ? 'no list at the far end' : 'what points here is listed',
          ...(read === null ? [] : ['its target is read below it']),
        ].join(', '),
        placings: [
          { of: 'reference', subject: id, place },
          ...(listed === null ? [] : [{ of: 'back', subject: backSubject(id), place: listed } as const]),
        ],
      };
    }),
  );
  const isDefault = near.level === 'default' && (far === null || far.level === 'default');
  return {
    kind: 'placement',
    id,
    label: `${refers.from} ${roleOf(refers)}`,
    options,
    value: `${near.place} ${far?.place ?? ''}`,
    level: isDefault ? 'default' : 'arrangement',
  };
}
