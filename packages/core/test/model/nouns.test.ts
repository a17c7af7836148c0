import { plural, pluralNoun, singular, singularNoun } from '@isomeros/core/model';
import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { rounds } from '../support/rounds.js';

/** One and many, as a dictionary has them. */
const NOUNS = `
  lens:lenses bias:biases iris:irises atlas:atlases cactus:cacti stimulus:stimuli census:censuses corpus:corpora
  leaf:leaves hero:heroes echo:echoes potato:potatoes mosquito:mosquitoes foreman:foremen phenomenon:phenomena
  curriculum:curricula metadata:metadata meta:meta s:s data:data series:series news:news Tooth:Teeth Foot:Feet
  Goose:Geese Genus:Genera Mouse:Mice Louse:Lice child:children person:people man:men woman:women ox:oxen
  tomato:tomatoes torpedo:torpedoes veto:vetoes photo:photos piano:pianos radio:radios video:videos
  studio:studios zoo:zoos memo:memos logo:logos knife:knives life:lives wife:wives shelf:shelves half:halves
  wolf:wolves loaf:loaves thief:thieves calf:calves self:selves roof:roofs chief:chiefs cliff:cliffs
  belief:beliefs proof:proofs safe:safes analysis:analyses crisis:crises thesis:theses axis:axes
  diagnosis:diagnoses hypothesis:hypotheses parenthesis:parentheses synthesis:syntheses oasis:oases
  criterion:criteria automaton:automata bacterium:bacteria memorandum:memoranda stratum:strata addendum:addenda
  erratum:errata index:indices matrix:matrices vertex:vertices appendix:appendices status:statuses bus:buses
  virus:viruses campus:campuses bonus:bonuses focus:focuses nucleus:nuclei radius:radii alumnus:alumni
  fungus:fungi syllabus:syllabi box:boxes fax:faxes tax:taxes quiz:quizzes buzz:buzzes class:classes
  address:addresses process:processes business:businesses boss:bosses gas:gases alias:aliases canvas:canvases
  pass:passes glass:glasses mass:masses witness:witnesses compass:compasses match:matches branch:branches
  batch:batches dish:dishes bush:bushes stomach:stomachs monarch:monarchs epoch:epochs city:cities
  country:countries category:categories company:companies query:queries inventory:inventories history:histories
  story:stories day:days key:keys toy:toys survey:surveys journey:journeys valley:valleys guy:guys sheep:sheep
  fish:fish deer:deer species:species aircraft:aircraft equipment:equipment information:information
  software:software hardware:hardware feedback:feedback luggage:luggage furniture:furniture money:money
  staff:staff offspring:offspring route:routes sailing:sailings vessel:vessels crew:crews house:houses
  horse:horses nurse:nurses course:courses cause:causes license:licenses purchase:purchases database:databases
  case:cases phase:phases release:releases response:responses expense:expenses price:prices invoice:invoices
  voice:voices device:devices service:services piece:pieces page:pages image:images message:messages
  package:packages stage:stages vehicle:vehicles schedule:schedules role:roles user:users order:orders
  customer:customers account:accounts payment:payments hotel:hotels ticket:tickets event:events movie:movies
  cookie:cookies zombie:zombies tie:ties pie:pies shoe:shoes toe:toes hoe:hoes canoe:canoes bee:bees fee:fees
  employee:employees committee:committees referee:referees menu:menus taxi:taxis ski:skis alibi:alibis
  schema:schemas camera:cameras agenda:agendas area:areas idea:ideas formula:formulas antenna:antennas
  sofa:sofas visa:visas octopus:octopuses platypus:platypuses prospectus:prospectuses hiatus:hiatuses
  apparatus:apparatuses human:humans german:germans roman:romans talisman:talismans shaman:shamans seaman:seamen
  fireman:firemen salesman:salesmen chairman:chairmen craftsman:craftsmen grandchild:grandchildren
  blouse:blouses spouse:spouses warehouse:warehouses lighthouse:lighthouses grouse:grouse mongoose:mongooses
  moose:moose dwarf:dwarfs scarf:scarves hoof:hooves cargo:cargoes embargo:embargoes volcano:volcanoes
  tornado:tornadoes domino:dominoes buffalo:buffaloes casino:casinos ratio:ratios portfolio:portfolios
  scenario:scenarios folio:folios kilo:kilos euro:euros zero:zeros ego:egos disco:discos avocado:avocados
  polygon:polygons salesperson:salespeople cod:cod salmon:salmon means:means headquarters:headquarters
  chassis:chassis corps:corps crossroads:crossroads scissors:scissors trousers:trousers goods:goods
  thanks:thanks sms:sms gps:gps dns:dns sos:sos plus:pluses minus:minuses chorus:choruses circus:circuses
  genius:geniuses walrus:walruses waltz:waltzes topaz:topazes suffix:suffixes prefix:prefixes complex:complexes
  reflex:reflexes ibex:ibexes hex:hexes proxy:proxies galaxy:galaxies soliloquy:soliloquies
`
  .trim()
  .split(/\s+/)
  .map((pair) => pair.split(':') as [string, string]);

test('there are more than 200 of them', () => {
  expect(new Set(NOUNS.map(([one]) => one)).size).toBeGreaterThan(200);
});

test.each(NOUNS)('%s, many %s', (one, many) => {
  expect(plural(one)).toBe(many);
  expect(singular(many)).toBe(one);
  expect(plural(many)).toBe(many);
  expect(singular(one)).toBe(one);
});

/** `bases`, `data` and `media` belong to two nouns each; the more usual one is taken. */
test.each([
  ['basis', 'bases', 'base'],
  ['datum', 'data', 'data'],
  ['medium', 'media', 'media'],
])('%s, many %s, one %s', (one, many, back) => {
  expect(plural(one)).toBe(many);
  expect(singular(many)).toBe(back);
});

test.each([
  ['CrewMember', 'CrewMembers'],
  ['SalesPerson', 'SalesPeople'],
  ['CameraLens', 'CameraLenses'],
  ['Grandchild', 'Grandchildren'],
  ['crewMan', 'crewMen'],
  ['Level2', 'Level2s'],
  ['URL', 'URLs'],
  ['SMS', 'SMS'],
  ['UserSettings', 'UserSettings'],
])('the last word of %s tells: %s', (one, many) => {
  expect(plural(one)).toBe(many);
  expect(plural(many)).toBe(many);
});

test('whatever is put in the plural stays a plural, and comes back from the singular', () => {
  const letter = (letters: string): fc.Arbitrary<string> => fc.constantFrom(...letters);
  const syllable = fc
    .tuple(letter('bdfgklnprtvw'), letter('aeiou'), letter('dklmnprt'))
    .map((all) => all.join(''));
  const stems = fc.array(syllable, { minLength: 2, maxLength: 3 }).map((all) => all.join(''));
  const ends = fc.constantFrom(
    '',
    's',
    'es',
    'ies',
    'us',
    'is',
    'ses',
    'ches',
    'ves',
    'oes',
    'men',
    'y',
    'ex',
  );
  fc.assert(
    fc.property(stems, ends, (stem, end) => {
      const many = pluralNoun(stem + end);
      expect(pluralNoun(many)).toBe(many);
      expect(pluralNoun(singularNoun(many))).toBe(many);
    }),
    rounds(300),
  );
});
