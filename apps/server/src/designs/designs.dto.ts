import { ARRANGEMENT_NAME } from '@isomeros/core/arrangement';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDefined,
  IsIn,
  IsObject,
  IsOptional,
  IsRFC3339,
  IsString,
  Matches,
  MaxLength,
  MinLength,
} from 'class-validator';

import {
  SOURCE_FORMATS,
  type ArrangementName,
  type ChangesQuery,
  type DesignFileQuery,
  type DesignName,
  type DesignsQuery,
  type ModelText,
  type NewCopy,
  type NewDesign,
  type NewRelease,
  type PublicationQuery,
  type Rename,
  type SourceFormat,
  type Successor,
} from '@isomeros/api';
import { Nested } from '../http/nested.js';
import { ApiProblem } from '../http/problem.js';
import { PageQueryDto, type AsText } from '../http/query.dto.js';

const NAME = { message: 'Expected a name of 1 to 120 characters.' };

/** Which designs, and which page of them. */
export class DesignsQueryDto extends PageQueryDto implements AsText<DesignsQuery> {
  @IsOptional()
  @IsString({ message: 'Expected a part of a name.' })
  @MaxLength(120, { message: 'Expected a part of a name, of at most 120 characters.' })
  name?: string;
}

type SourceOfDesign = NewDesign['source'];

export class SourceDto implements SourceOfDesign {
  @IsIn(SOURCE_FORMATS, { message: `Expected one of ${SOURCE_FORMATS.join(', ')}.` })
  format: SourceFormat;

  @IsString({ message: 'Expected the text of the source.' })
  text: string;

  @IsOptional()
  @IsObject({ message: 'Expected an object from the indexes of questions to those of options.' })
  answers?: Record<string, number>;

  @IsOptional()
  @IsString({ message: 'Expected what one record is, in at most 120 characters.' })
  @MaxLength(120, { message: 'Expected what one record is, in at most 120 characters.' })
  record?: string;
}

const CARRIES = { message: 'Expected true or false.' };

export class CreateDesignDto implements NewDesign {
  @IsOptional()
  @IsString(NAME)
  @MinLength(1, NAME)
  @MaxLength(120, NAME)
  name?: string;

  @IsOptional()
  @IsBoolean(CARRIES)
  records?: boolean;

  @IsDefined({ message: 'Expected an object with format and text.' })
  @IsObject({ message: 'Expected an object with format and text.' })
  @Nested(() => SourceDto)
  source: SourceDto;
}

export class NameDto implements DesignName {
  @IsString(NAME)
  @MinLength(1, NAME)
  @MaxLength(120, NAME)
  name: string;
}

export class CopyDto extends NameDto implements NewCopy {
  @IsOptional()
  @IsBoolean(CARRIES)
  records?: boolean;
}

export class DesignFileQueryDto implements AsText<DesignFileQuery> {
  @IsOptional()
  @IsIn(['true', 'false'], CARRIES)
  records?: string;
}

export class SaveModelDto implements ModelText {
  @IsString({ message: 'Expected the text of the model.' })
  text: string;
}

export class SaveChoicesDto {
  @IsObject({ message: 'Expected an object from names of settings to their values.' })
  settings: Record<string, unknown>;

  /** Each with its name; one, called main, where it is left out. */
  @IsOptional()
  @IsArray({ message: 'Expected an array of arrangements.' })
  arrangements?: unknown[];

  @IsArray({ message: 'Expected an array of ids of assumptions.' })
  @ArrayMaxSize(10_000, { message: 'Expected at most 10000 ids.' })
  @IsString({ each: true, message: 'Expected ids of assumptions.' })
  @MaxLength(600, { each: true, message: 'Expected ids of at most 600 characters.' })
  answered: string[];
}

export class RenameDto implements Rename {
  @IsString({ message: 'Expected the address of what went.' })
  from: string;

  @IsString({ message: 'Expected the address of what came.' })
  to: string;

  @IsBoolean({ message: 'Expected whether one became the other.' })
  renamed: boolean;
}

export class ArrangementNameDto implements ArrangementName {
  @Matches(ARRANGEMENT_NAME, {
    message: 'Expected a name of 1 to 60 letters, digits, spaces, dots, hyphens or underscores.',
  })
  name: string;
}

const SUCCESSOR = 'Expected an object with the label of a release, or the name of an arrangement.';

const LABEL = {
  message:
    'Expected a label of 1 to 60 letters, digits, dots, dashes and underscores, the first a letter or digit.',
};

export class MakeReleaseDto implements NewRelease {
  @IsString(LABEL)
  @Matches(/^[A-Za-z0-9][A-Za-z0-9._-]{0,59}$/, LABEL)
  label: string;

  @IsString({ message: 'Expected the name of an arrangement.' })
  arrangement: string;
}

const INSTANT = 'Expected an instant such as 2026-06-14T08:30:00Z.';

/** What is said about the end of a release. */
export class ReleaseEndDto {
  @IsRFC3339({ message: INSTANT })
  deprecatedAt: string;

  @IsOptional()
  @IsRFC3339({ message: INSTANT })
  sunsetAt?: string | null;

  @IsOptional()
  @IsObject({ message: SUCCESSOR })
  successor?: Record<string, unknown> | null;
}

/** What comes after a release. */
export function readSuccessor(given: Record<string, unknown> | null | undefined): Successor | null {
  if (given === null || given === undefined) return null;
  const { release, arrangement, ...other } = given;
  if (Object.keys(other).length === 0) {
    if (typeof release === 'string' && arrangement === undefined) return { release };
    if (typeof arrangement === 'string' && release === undefined) return { arrangement };
  }
  const errors = [{ pointer: '/successor', code: 'type', message: SUCCESSOR }];
  throw new ApiProblem('invalid', SUCCESSOR, { errors });
}

export class ChangesQueryDto implements AsText<ChangesQuery> {
  @IsOptional()
  @IsString({ message: 'Expected the name of an arrangement.' })
  arrangement?: string;
}

export class PublicationQueryDto implements AsText<PublicationQuery> {
  @IsOptional()
  @IsIn(['mock'], { message: 'Expected mock.' })
  server?: 'mock';
}
