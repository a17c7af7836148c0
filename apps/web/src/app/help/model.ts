import type { HelpEntry } from './entry.js';

export const MODEL_HELP = {
  'model.format': {
    title: 'Format',
    kind: 'action',
    view: 'model',
    help: 'Writes the text with the spaces and the order of flags that the notation has; nothing changes its meaning.',
    example: 'Shift+Alt+F',
  },
  'model.rename': {
    title: 'Rename',
    kind: 'action',
    view: 'model',
    help: 'Changes a name wherever it is used; records of a running mock keep their values.',
    example: 'F2 on a name',
  },
  'model.notation': {
    title: 'Map, Paths, Reference',
    kind: 'action',
    view: 'model',
    help: 'What stands beside the text: the entities as a map, the paths they imply, or every statement, type and flag of the notation.',
  },
  'model.entity': {
    title: 'Add entity',
    kind: 'action',
    view: 'model',
    help: 'Asks for a name and appends an entity to the text.',
    example: 'entity Route',
  },
  'model.value': {
    title: 'Add value',
    kind: 'action',
    view: 'model',
    help: 'Asks for a name and appends a value: attributes that belong together and have no id.',
    example: 'value Position',
  },
  'model.relationship': {
    title: 'Add relationship',
    kind: 'action',
    view: 'model',
    help: 'Asks for a role and appends a sentence about the selected entity and another one.',
    example: 'each Sailing refers to optional Vessel as vessel',
  },
  'model.fit': {
    title: 'Fit',
    kind: 'action',
    view: 'model',
    help: 'Shows all of the map.',
    example: '0 while the map has the focus',
  },
  'model.severity': {
    title: 'Severity of a finding',
    kind: 'mark',
    view: 'model',
    help: 'An error cannot be served as it is; what is doubtful is served, and probably not meant.',
  },
} as const satisfies Record<string, HelpEntry>;
