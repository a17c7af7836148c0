/** The rules of derivation: a title and one sentence of plain English each. */
export const RULES = {
  'place.entry': {
    title: 'Entry',
    sentence:
      'Every contract has one entry at its root, which links to everything that can be reached first.',
  },
  'place.root': {
    title: 'Stands alone',
    sentence: 'An entity that nothing owns has a collection at the root, and its items below it.',
  },
  'place.nested': {
    title: 'Owned',
    sentence: 'What an entity owns many of has a collection below each owner, and its items below that.',
  },
  'place.shallow': {
    title: 'Listed under its owner',
    sentence:
      'What is placed shallow is listed and created below its owner, while its items stand at the root.',
  },
  'place.flat': {
    title: 'Beside its owner',
    sentence:
      'What is placed flat stands at the root as a whole; its owner is named in the body that creates it.',
  },
  'place.both': {
    title: 'Also at the root',
    sentence: 'What is placed both ways stands below its owner, and can be listed and read at the root too.',
  },
  'place.unreachable': {
    title: 'Out of reach',
    sentence: 'What stands below something without a path has no path either.',
  },
  'place.keyless-owner': {
    title: 'Owner without id',
    sentence: 'What is owned by a record without an id of its own cannot name it, so it stays below it.',
  },
  'place.depth': {
    title: 'Depth',
    sentence: 'A path holds no more ids than the depth allows, so these items stand at the root.',
  },
  'place.scoped': {
    title: 'Key under its owner',
    sentence:
      'A key that is unique only under its owner says nothing without it, so the items stay below the owner.',
  },
  'place.tree': {
    title: 'Owns its own kind',
    sentence:
      'An entity that owns many of itself has all its items at the root and a list of children below each.',
  },
  'place.singleton': {
    title: 'Slot',
    sentence: 'What an entity owns one of stands directly below it, without an id of its own.',
  },
  'place.back': {
    title: 'Way back',
    sentence: 'A reference with a way back gives the entity it points at a list of those that point at it.',
  },
  'place.read': {
    title: 'Read through its reference',
    sentence: 'What a record points at can be read below it, with the one address it has elsewhere told.',
  },
  'place.pairing': {
    title: 'Paired',
    sentence: 'What an entity pairs with is listed below it, and each pair stands below that.',
  },
  'place.pairing-back': {
    title: 'Way back of a pairing',
    sentence: 'A pairing with a way back gives the other side a list of those it is paired with.',
  },
  'place.pairing-far': {
    title: 'Paired from the other side',
    sentence:
      'A pairing can be kept from the other side: there it is listed, and each pair stands below that.',
  },
  'place.change': {
    title: 'Moved by a change',
    sentence: 'A transition that is no action is carried out by changing its attribute, under the same rule.',
  },
  'place.action': {
    title: 'Transition',
    sentence: 'A transition of a life cycle is an action below the item.',
  },
  'operation.attach': {
    title: 'Attach',
    sentence: 'A pair is made by PUT, and made once however often it is asked for.',
  },
  'operation.detach': { title: 'Detach', sentence: 'A pair is ended by DELETE; both sides stay.' },
  'operation.transition': {
    title: 'Transition',
    sentence: 'A transition is carried out by POST and answers the item as it is then.',
  },
  'operation.list': { title: 'List', sentence: 'A collection can be listed.' },
  'operation.read': { title: 'Read', sentence: 'An item can be read.' },
  'operation.create': { title: 'Create', sentence: 'A collection takes new items by POST.' },
  'operation.replace': { title: 'Replace', sentence: 'An item can be replaced as a whole by PUT.' },
  'operation.change': { title: 'Change', sentence: 'An item can be changed in part by PATCH.' },
  'operation.remove': { title: 'Remove', sentence: 'An item can be removed by DELETE.' },
  'operation.put-creates': { title: 'Filled by PUT', sentence: 'An empty slot is filled by the first PUT.' },
  'operation.name': { title: 'Operation name', sentence: 'An operation is named by its verb and its noun.' },
  'operation.unnameable': {
    title: 'Named by its owner',
    sentence: 'Where two operations would have one name, the name of the owner tells them apart.',
  },
  'name.path': { title: 'Path words', sentence: 'Names become path segments in the case of the setting.' },
  'name.word': {
    title: 'Chosen word',
    sentence: 'A path word that was chosen takes the place of the derived one.',
  },
  'name.version': {
    title: 'Version',
    sentence: 'The version stands in the path, in a request header, or nowhere.',
  },
  'name.plural': { title: 'Plural', sentence: 'A collection is named by the plural of its entity.' },
  'name.parameter': {
    title: 'Path parameter',
    sentence: 'A path parameter is named by its entity and its key.',
  },
  'name.base': { title: 'Base path', sentence: 'All paths begin with the base path and the version.' },
  'member.attribute': { title: 'Attribute', sentence: 'An attribute is a member of the representation.' },
  'member.generated': {
    title: 'Made by the server',
    sentence: 'What the server makes is returned and never accepted.',
  },
  'member.read-only': {
    title: 'Read-only',
    sentence: 'A read-only attribute is returned and never accepted.',
  },
  'member.write-only': {
    title: 'Write-only',
    sentence: 'A write-only attribute is accepted and never returned.',
  },
  'member.fixed': { title: 'Fixed', sentence: 'A fixed attribute is accepted on create and never changes.' },
  'member.touched': { title: 'Touched', sentence: 'The server sets a touched instant at every change.' },
  'member.key': { title: 'Key', sentence: 'The key is the id of a record; it is given once.' },
  'member.implicit-id': { title: 'Implicit id', sentence: 'An entity without a key has a counted id.' },
  'member.reference': {
    title: 'Reference',
    sentence: 'A reference is a member that holds the key of its target.',
  },
  'member.owner': {
    title: 'Owner',
    sentence: 'The owner comes from the path, is returned, and never changes.',
  },
  'member.owner-named': {
    title: 'Owner named',
    sentence: 'What stands beside its owner names it when it is created, and never changes it.',
  },
  'member.slot': {
    title: 'Made with its owner',
    sentence: 'What must exist from the start is made in the body that creates its owner.',
  },
  'member.links': {
    title: 'Links',
    sentence: 'A representation in plain JSON carries its links in a links object, unless chosen otherwise.',
  },
  'member.hal-links': {
    title: 'Links in HAL',
    sentence: 'What was read as HAL can be sent back with its links, which have no effect.',
  },
  'member.life-cycle': {
    title: 'Life cycle',
    sentence: 'An attribute with a life cycle begins at its default and moves by its transitions only.',
  },
  'member.carried': {
    title: 'Carried',
    sentence: 'A listed member shows what its pair carries, in a member named after the value.',
  },
  'member.value': { title: 'Value', sentence: 'A value is an object inside the representation.' },
  'member.exposed': {
    title: 'Chosen in the grid',
    sentence: 'What goes in and what comes out of a member can be chosen within what the model allows.',
  },
  'finding.withheld': {
    title: 'Create withheld',
    sentence: 'A collection offers no create while something required is neither accepted nor made.',
  },
  'finding.unlinked': {
    title: 'No way to them',
    sentence:
      'What stands beside its owner is found from it only by a filter, which its list does not offer.',
  },
  'finding.verb': {
    title: 'A verb in a path',
    sentence: 'A path names things; what is done with them is said by the method.',
  },
  'finding.unseen': {
    title: 'Never seen',
    sentence: 'What is accepted and never returned, though no secret, may have been forgotten.',
  },
  'member.required': { title: 'Required', sentence: 'A required attribute without a default must be sent.' },
  'list.page': { title: 'Page', sentence: 'A list is answered page by page.' },
  'list.whole': {
    title: 'Whole',
    sentence: 'A list without pages is answered as a whole, however long it is.',
  },
  'list.total': {
    title: 'Total',
    sentence: 'The number of all records is told in the body, in a header, or not counted.',
  },
  'list.sort': {
    title: 'Sort',
    sentence: 'A list can be sorted by each returned scalar, unless chosen otherwise; the key breaks ties.',
  },
  'list.filter': {
    title: 'Filter',
    sentence: 'A list can be narrowed by comparing what it returns with given values.',
  },
  'list.filter-style': {
    title: 'How filters are written',
    sentence: 'Equality is written plainly; other comparisons name their operator in brackets.',
  },
  'list.unknown': {
    title: 'Unknown parameter',
    sentence: 'A query parameter that the operation does not have is refused.',
  },
  'link.self': { title: 'Self', sentence: 'A representation links to its own canonical address.' },
  'link.up': { title: 'Up', sentence: 'What is owned links to its owner.' },
  'link.collection': { title: 'Collection', sentence: 'An item links to the collection it is listed in.' },
  'link.role': { title: 'By role', sentence: 'A relationship is a link named by its role.' },
  'link.template': {
    title: 'Any item',
    sentence: 'A list beside the one address of its records says how to read one there by its id.',
  },
  'link.filtered': {
    title: 'To a narrowed list',
    sentence: 'What stands beside its owner is found from it by a list narrowed to that owner.',
  },
  'link.back': { title: 'By way back', sentence: 'A way back is a link named by its role.' },
  'link.entry': { title: 'From the entry', sentence: 'The entry links to every collection at the root.' },
  'link.action': {
    title: 'By transition',
    sentence: 'A transition is a link named by it, offered only while state and condition allow it.',
  },
  'link.edit': {
    title: 'Pair',
    sentence: 'A paired record links to its pair, where it is changed or ended.',
  },
  'link.page': { title: 'Pages', sentence: 'A page links to its neighbours and to both ends.' },
  'link.description': {
    title: 'Description',
    sentence: 'The entry links to the published description (RFC 8631).',
  },
  'status.ok': { title: 'Answered', sentence: 'A request that succeeds with a body answers 200.' },
  'status.created': {
    title: 'Created',
    sentence: 'A create answers 201 with the address of the new record.',
  },
  'status.removed': {
    title: 'Removed',
    sentence: 'A removal answers 204 without a body, or 200 with the record as it was.',
  },
  'status.malformed': {
    title: 'Not readable',
    sentence: 'A body that is not JSON, or names a member twice, answers 400.',
  },
  'status.invalid': {
    title: 'Does not fit',
    sentence: 'A body that does not fit its shape answers with all errors at once.',
  },
  'status.parameter': {
    title: 'Bad parameter',
    sentence: 'A query parameter that is unknown, repeated or of the wrong type answers 400.',
  },
  'status.missing': {
    title: 'Not there',
    sentence: 'What is not there answers 404; so does a child under another owner.',
  },
  'status.not-acceptable': {
    title: 'Not acceptable',
    sentence: 'An Accept that rules out every offered media type answers 406.',
  },
  'status.conflict': { title: 'Taken', sentence: 'A value that must be unique and is taken answers 409.' },
  'status.key-mismatch': {
    title: 'Another key',
    sentence: 'A body whose key contradicts the path answers 409.',
  },
  'status.state': {
    title: 'Not allowed now',
    sentence: 'A transition that the state or its condition does not allow answers 409.',
  },
  'status.attached': { title: 'Paired already', sentence: 'A pair that is there already answers 204.' },
  'status.restricted': {
    title: 'Still needed',
    sentence: 'A record that others need cannot be removed: 409.',
  },
  'status.too-large': { title: 'Too large', sentence: 'A body over the limit answers 413.' },
  'status.media-type': {
    title: 'Media type',
    sentence: 'A body without an accepted Content-Type answers 415.',
  },
  'status.elsewhere': {
    title: 'Its one address',
    sentence: 'Another way to a record answers with its canonical address in Content-Location.',
  },
  'finding.collision': {
    title: 'Names collide',
    sentence: 'Two elements would have one name; the second is left out.',
  },
  'finding.leftover': {
    title: 'Left over',
    sentence: 'An entity that nothing joins to others, or a value that nothing has, may have been forgotten.',
  },
  'finding.impossible': { title: 'No create', sentence: 'No record could ever be created here.' },
} as const satisfies Record<string, { title: string; sentence: string }>;

export type RuleId = keyof typeof RULES;
