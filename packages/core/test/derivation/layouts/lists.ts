import type { Chapter } from './layout.js';
import { REFERS, ROUTES } from './models.js';

const PORT = 'entity Port\n  name: text, required\n  opened: date';
const PORTS = ['/ports: list create', '/ports/{portId}: read replace change remove'];

export const LISTS: Chapter = {
  title: 'Lists',
  layouts: [
    {
      name: 'A list has pages by number, sort keys, and a filter for each member it shows.',
      model: PORT,
      paths: PORTS,
      parameters: [
        '/ports: page size sort id[eq ne in lt lte gt gte] name[eq ne in contains starts] opened[eq ne in lt lte gt gte unset]',
      ],
    },
    {
      name: 'By a cursor, it leads from page to page and knows no last one.',
      model: PORT,
      settings: { pageStyle: 'cursor', filterStyle: 'none' },
      paths: PORTS,
      parameters: ['/ports: cursor limit sort'],
      links: ['/ports: next → page', '/ports: prev → page', '/ports: first → page'],
    },
    {
      name: 'Plain filters compare for equality only.',
      model: PORT,
      settings: { filterStyle: 'plain', pageStyle: 'offset' },
      paths: PORTS,
      parameters: ['/ports: offset limit sort id[eq] name[eq] opened[eq]'],
    },
    {
      name: 'A search looks through the texts that are shown.',
      model: PORT,
      settings: { filterStyle: 'none', sortStyle: 'none', search: 'on' },
      paths: PORTS,
      parameters: ['/ports: page size q'],
    },
    {
      name: 'Without a text there is nothing to search.',
      model: 'entity Port\n  opened: date',
      settings: { filterStyle: 'none', sortStyle: 'none', search: 'on' },
      paths: PORTS,
      parameters: ['/ports: page size'],
    },
    {
      name: 'Filters can reach through a role to what is pointed at.',
      model: REFERS,
      settings: { filterStyle: 'plain', filterThrough: 'on', sortStyle: 'none', pageStyle: 'none' },
      paths: [
        '/harbours: list create',
        '/harbours/{harbourId}: read replace change remove',
        '/harbours/{harbourId}/departures: list',
        ...ROUTES,
      ],
      parameters: ['/routes: id[eq] originId[eq] origin.id[eq]', '/harbours/{harbourId}/departures: id[eq]'],
      findings: ['list.unbounded Harbour'],
    },
    {
      name: 'An order can be chosen for a list; what it does not show is no order.',
      model: PORT,
      resources: { Port: { defaultSort: ['-opened', 'draught'] } },
      paths: PORTS,
      findings: ['list.order Port'],
    },
    {
      name: 'Members can be asked for by name, so none is certain to be there.',
      model: PORT,
      settings: { fields: 'on', filterStyle: 'none' },
      paths: PORTS,
      members: ['Port: id name opened', 'Port.create: name! opened'],
      parameters: ['/ports: page size sort fields', '/ports/{portId}: fields'],
    },
    {
      name: 'What a record links to can be answered inside it, and sent back without effect.',
      model: REFERS,
      settings: { expand: 'on', filterStyle: 'none' },
      paths: [
        '/harbours: list create',
        '/harbours/{harbourId}: read replace change remove',
        '/harbours/{harbourId}/departures: list',
        ...ROUTES,
      ],
      members: [
        'Route: id! originId! origin',
        'Harbour: id! departures',
        'Route.replace: id originId origin',
      ],
      parameters: ['/routes/{routeId}: expand', '/harbours: page size sort expand'],
    },
    {
      name: 'Bare lists without links tell nobody the cursor of the next page.',
      model: PORT,
      settings: { pageStyle: 'cursor', envelope: 'bare', links: 'none', mediaTypes: ['json'] },
      paths: PORTS,
      findings: ['link.off entry', 'list.dead-end Port'],
    },
    {
      name: 'The parts of a list and its parameters can be called otherwise.',
      model: PORT,
      settings: {
        itemsMember: 'data',
        pageMember: 'paging',
        linksMember: 'seeAlso',
        pageParameter: 'pageNumber',
        memberCase: 'snake',
        filterStyle: 'none',
      },
      paths: PORTS,
      members: ['Port.page: data! paging!'],
      parameters: ['/ports: page_number size sort'],
    },
    {
      name: 'Parameters of one name are told apart by leaving the second out.',
      model: PORT,
      settings: { pageParameter: 'size', filterStyle: 'none' },
      paths: PORTS,
      parameters: ['/ports: size sort'],
      findings: ['parameter.reserved Port'],
    },
    {
      name: 'Parts of a list of one name keep their usual names.',
      model: PORT,
      settings: { itemsMember: 'page' },
      paths: PORTS,
      members: ['Port.page: items! page!'],
      findings: ['member.collide entry'],
    },
  ],
};
