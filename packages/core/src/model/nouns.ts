/** What the regular endings get wrong: singular and plural, in lower case. */
const IRREGULAR = pairs(`
  child children, ox oxen, man men, woman women, person people, tooth teeth, foot feet, goose geese, mouse mice,
  louse lice, die dice, genus genera, opus opera, corpus corpora, quiz quizzes, matrix matrices, vertex vertices,
  index indices, appendix appendices, axis axes, datum data, medium media, stratum strata, addendum addenda,
  erratum errata, bacterium bacteria, curriculum curricula, memorandum memoranda, referendum referenda,
  quantum quanta, spectrum spectra, ovum ova, desideratum desiderata, criterion criteria, phenomenon phenomena,
  automaton automata, polyhedron polyhedra, cactus cacti, stimulus stimuli, nucleus nuclei, radius radii,
  alumnus alumni, alumna alumnae, fungus fungi, syllabus syllabi, locus loci, larva larvae, alga algae,
  vertebra vertebrae, nebula nebulae, knife knives, life lives, wife wives, shelf shelves, half halves, wolf wolves,
  loaf loaves, leaf leaves, thief thieves, calf calves, self selves, elf elves, sheaf sheaves, scarf scarves,
  hoof hooves, hero heroes, echo echoes, potato potatoes, tomato tomatoes, mosquito mosquitoes, torpedo torpedoes,
  veto vetoes, embargo embargoes, cargo cargoes, volcano volcanoes, tornado tornadoes, domino dominoes,
  buffalo buffaloes, stomach stomachs, monarch monarchs, patriarch patriarchs, epoch epochs, tech techs,
  loch lochs, czech czechs, passerby passersby`);

/** Nouns that are the same for one and for many, or are only ever one of both. */
const UNCHANGED = set(`
  data metadata meta media series species news sheep fish deer moose salmon cod trout grouse swine bison plankton
  aircraft spacecraft hovercraft watercraft equipment information software hardware firmware middleware freeware
  feedback luggage baggage furniture money cash staff personnel offspring means headquarters chassis corps crossroads
  barracks scissors trousers pants jeans goods thanks sms gps dns sos https tls css wildlife traffic weather
  advice knowledge research evidence homework music rice wheat water mathematics physics economics logistics
  analytics statistics genetics ethics politics s`);

/** Singulars that end in one s and are neither in -us nor in -is. */
const SINGULAR_IN_S = set(`
  lens bias atlas alias canvas gas christmas pancreas chaos cosmos pathos ethos thermos rhinoceros asbestos
  summons biceps triceps forceps`);

/** Plurals that end as singulars do: in -us and in -is. */
const PLURAL_IN_US_OR_IS = set(
  'menus gurus gnus emus tutus haikus taxis skis alibis kiwis wifis rabbis safaris bikinis',
);

/** Plurals in -ies whose singular ends in -ie, besides those of four letters. */
const SINGULAR_IN_IE = set(`
  movie cookie zombie brownie hoodie selfie rookie genie calorie prairie collie smoothie sortie reverie menagerie
  goalie newbie birdie`);

/** Singulars in -che, -she, -xe and -use, whose plural only adds an s. */
const SINGULAR_IN_E = set(`
  ache headache cache niche avalanche cliche quiche creche psyche moustache mustache brioche cartouche pastiche
  axe use reuse misuse excuse refuse fuse muse ruse recluse`);

/** Nouns of which compounds are made that end as they do: `Grandchild`, `Bookshelf`, `Salesperson`. */
const COMPOUNDING = [
  ...['child', 'woman', 'man', 'person', 'tooth', 'foot', 'mouse', 'shelf', 'knife', 'wife', 'leaf', 'loaf'],
  ...['index', 'matrix', 'vertex', 'quiz', 'medium', 'criterion', 'half', 'wolf', 'thief', 'potato'],
];

/** Singulars that take -es, though most that sound like them end in an e already. */
const HISSING = set('topaz iris pelvis trellis metropolis');

/** Stems of Greek nouns in -sis: `analyses` are of an analysis, `leases` of a lease. */
const GREEK =
  /(?:analy|diagno|the|paren|progno|empha|synop|ellip|cri|oa|neme|neuro|paraly|cataly|morpho)ses$/;

/** They end in -man, and are no men. */
const NO_MAN = /(?:hu|ger|ro|talis|sha|otto|nor|cai)m[ae]n$/;

const BY_PLURAL = new Map([...IRREGULAR].map(([one, many]) => [many, one]));

/**
 * The plural of one English noun, in lower case. A noun that is a plural stays as it is, so that a name which
 * already tells of many (`Settings`) does not get its ending twice.
 */
export function pluralNoun(noun: string): string {
  if (noun === '' || !/[a-z]$/.test(noun)) return noun === '' ? noun : `${noun}s`;
  if (isPlural(noun)) return noun;
  return irregularPlural(noun) ?? regularPlural(noun);
}

/** The singular of one English noun, in lower case; what is no plural stays as it is. */
export function singularNoun(noun: string): string {
  if (UNCHANGED.has(noun) || !isPlural(noun)) return noun;
  return irregularSingular(noun) ?? regularSingular(noun);
}

/** The usual endings: -s, -es after a hiss, -ies for -y after a consonant, -ses for the -sis of Greek. */
export function regularPlural(noun: string): string {
  if (/[^aeiou]y$/.test(noun) || /quy$/.test(noun)) return `${noun.slice(0, -1)}ies`;
  if (/[^s]sis$/.test(noun)) return `${noun.slice(0, -2)}es`;
  return /(?:s|x|z|ch|sh)$/.test(noun) ? `${noun}es` : `${noun}s`;
}

function isPlural(noun: string): boolean {
  if (UNCHANGED.has(noun) || irregularSingular(noun) !== null) return true;
  if (!/[^s]s$/.test(noun) || SINGULAR_IN_S.has(noun)) return false;
  return !/[ui]s$/.test(noun) || PLURAL_IN_US_OR_IS.has(noun);
}

const irregularPlural = (noun: string): string | null =>
  IRREGULAR.get(noun) ?? compound(noun, (end) => [end, IRREGULAR.get(end) ?? end]);

const irregularSingular = (noun: string): string | null =>
  BY_PLURAL.get(noun) ?? compound(noun, (end) => [IRREGULAR.get(end) ?? end, end]);

/** The other form of a compound, by the noun it ends with. */
function compound(noun: string, forms: (end: string) => readonly [from: string, to: string]): string | null {
  for (const [from, to] of COMPOUNDING.map(forms))
    if (noun.endsWith(from) && noun !== from && !NO_MAN.test(noun)) return noun.slice(0, -from.length) + to;
  return null;
}

function regularSingular(noun: string): string {
  const withoutS = noun.slice(0, -1);
  if (noun.endsWith('ies') && noun.length > 4 && !SINGULAR_IN_IE.has(withoutS))
    return `${noun.slice(0, -3)}y`;
  if (SINGULAR_IN_E.has(withoutS) || !noun.endsWith('es')) return withoutS;
  const stem = noun.slice(0, -2);
  if (GREEK.test(noun)) return `${stem}is`;
  const hisses = /(?:ss|x|ch|sh|zz|tz|[^aeo]us)$/.test(stem);
  return hisses || HISSING.has(stem) || SINGULAR_IN_S.has(stem) ? stem : withoutS;
}

function pairs(text: string): ReadonlyMap<string, string> {
  return new Map(
    text.split(',').map((pair) => {
      const [one = '', many = ''] = pair.trim().split(/\s+/);
      return [one, many];
    }),
  );
}

function set(text: string): ReadonlySet<string> {
  return new Set(text.trim().split(/\s+/));
}
