export { hasEffect, operationKey, setting } from './settings.js';
export { SETTING_LEVELS } from './settings/row.js';
export type { ChoiceLevel, ChoosableRow, SettingLevel, SettingValue } from './settings/row.js';
export {
  BASIC_SETTINGS,
  CHOOSABLE_NAMES,
  findSettings,
  hasLevel,
  rowOf,
  SETTING_GROUPS,
  SETTINGS,
} from './settings/table.js';
export { leaving, withLeftOut, type LeaveOut } from './leaveOut.js';
export { LIST_BUNDLES, withListBundle, type ListBundle } from './listBundles.js';
export { withSettingIn, type SettingScope } from './settingIn.js';
export { LEAVABLE, OPERATION_BUNDLES } from './settings/operations.js';
export type { Leavable } from './settings/operations.js';
export type { ChoosableSetting, SettingName, Settings } from './settings/table.js';
export type { ResolvedSetting, SettingPlace } from './settings.js';
export type { SettingsById, SettingValues } from './settings/values.js';
export { PART_NAMES, partNamed, PARTS } from './parts/index.js';
export type { ArrangementChoices, PartEdit, PartName } from './parts/index.js';
export {
  withDocumentationMoved,
  withEdit,
  withoutCustomOperation,
  withSetting,
  type ChoicePlace,
} from './edits.js';
export type { Decided } from './parts/part.js';
export { decidedSettings, settingText } from './parts/settings.js';
export { PATH_WORD } from './parts/words.js';
export {
  backSubject,
  entityPlacements,
  pairingPlacements,
  resolvePlacement,
  PLACEMENTS,
  placementWords,
  subjectsOf,
} from './placements.js';
export type {
  Placement,
  PlacementFor,
  Placements,
  ResolvedPlacement,
  Subject,
  SubjectKind,
} from './placements.js';
export { readSettings } from './readSettings.js';
export type { SettingProblem, SettingsResult } from './readSettings.js';
export {
  arrangementOf,
  completeModel,
  findArrangement,
  FIRST_ARRANGEMENT,
  MOST_ARRANGEMENTS,
  NO_CHOICES,
  plainArrangement,
  withArrangement,
} from './choices.js';
export type { Arrangement, Choices } from './choices.js';
export { ARRANGEMENT_NAME, readArrangement, readChoices } from './readChoices.js';
export { CHOICES_FORMAT, keepChoices, listedSetting, readKeptChoices, upgradeChoices } from './format.js';
export { keepPlurals } from './keepPlurals.js';
export type { KeptDesign } from './keepPlurals.js';
export { pluralSubject } from './parts/words.js';
export { escapePointer } from './reading.js';
export type { ChoiceProblem, ReadResult } from './reading.js';
export {
  CUSTOM_NAME,
  FIXED_OPERATORS,
  hasMoment,
  MOST_ACTED_ON,
  MOST_QUERIED,
  placeOfEffect,
} from './customOperations.js';
export { inputType } from './inputText.js';
export type {
  AcceptedInput,
  AggregateEffect,
  AlongStep,
  AssignedMember,
  ChosenValue,
  CustomEffect,
  CustomOperation,
  CustomPlace,
  FixedFilter,
  FixedValue,
  Input,
  InputRules,
  ManyEffect,
  Operand,
  OwnComparison,
  QueryTerms,
  TokenRole,
  VerifyAnswer,
  VerifyEffect,
  VerifyFailure,
} from './customOperations.js';
export { DOCUMENTED_KINDS, WHOLE_API, wrongInField } from './documentation.js';
export type { DocumentationChoices, DocumentedKind, SaidOf } from './documentation.js';
export {
  EXAMPLE_HEADERS,
  EXAMPLE_NAME,
  EXPECTED_EXAMPLE_NAME,
  LONGEST_EXAMPLE_BODY,
  LONGEST_EXAMPLE_NAME,
  MOST_EXAMPLE_RECORDS,
  MOST_EXAMPLES,
} from './examples.js';
export type { ExampleId, NamedExample } from './examples.js';
export { saidOf, saidOfKind } from './parts/documentation.js';
export { entryNamed } from './parts/part.js';
export { readDesignFile, writeDesignFile } from './designFile.js';
export type { DesignFile, DesignFileResult } from './designFile.js';
export { DESIGN_FILE_SCHEMA } from './designFileSchema.js';
export type { DesignFileProblem } from './fileIdentities.js';
export type { FileRecords } from './fileRecords.js';
export {
  ASPECTS,
  exposureChoice,
  FILTER_OPERATORS,
  MEMBER_NAME,
  NOT_CHOSEN,
  usualOperators,
} from './exposure.js';
export type {
  Aspect,
  Exposure,
  ExposureChoice,
  Exposures,
  FilterOperator,
  MemberAspect,
} from './exposure.js';
export {
  EXPECTED_RELATION,
  LINK_ATTRIBUTE_NAMES,
  LINK_ATTRIBUTES,
  LINK_PLACES,
  LINK_RELATION,
} from './links.js';
export type {
  AddressPart,
  BoundFilter,
  BoundParameter,
  LinkOperand,
  OwnLink,
  OwnLinkTarget,
  ReachedMember,
} from './ownLinks.js';
export { readOperand, readOperator, readWhen } from './comparisonText.js';
export { readStep } from './aggregateText.js';
export { AS_FILTER, nameableMembers, namesOf } from './effectNames.js';
export { printOperand } from './inputText.js';
export { printWhen } from './printEffect.js';
export type { LinkAttributes, LinkChoice, LinkChoices, LinkPlace } from './links.js';
export { readEffect, readQueryTerms } from './effectText.js';
export { printEffect } from './printEffect.js';
export type { EffectRead, QueryTermsRead } from './effectText.js';
