import { ARRANGEMENT_NAME } from '@isomeros/core/arrangement';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import type { LoadQuery, MocksQuery, NewMessage, NewSnapshot, ServedName } from '@isomeros/api';
import { EachOnce } from '../http/eachOnce.js';
import type { AsText } from '../http/query.dto.js';
import type { Served } from './served.js';

/** What is wanted of seed records. */
export class SeedPlanDto {
  /** How many records of an entity, by its name. */
  @IsOptional()
  @IsObject({ message: 'Expected an object from names of entities to whole numbers.' })
  counts?: Record<string, unknown>;

  /** How many records of an entity each of their owners gets, by its name. */
  @IsOptional()
  @IsObject({ message: 'Expected an object from names of entities to least, most and shape.' })
  children?: Record<string, unknown>;

  /** How often each option of a choice is to be met, by `Entity.attribute`. */
  @IsOptional()
  @IsObject({ message: 'Expected an object from choices to the shares of their options.' })
  shares?: Record<string, unknown>;

  @IsOptional()
  @IsInt({ message: 'Expected a whole number from 0 to 4294967295.' })
  @Min(0, { message: 'Expected a whole number from 0 to 4294967295.' })
  @Max(4_294_967_295, { message: 'Expected a whole number from 0 to 4294967295.' })
  seed?: number;

  /** Whether the initial records of the design are taken instead. */
  @IsOptional()
  @IsBoolean({ message: 'Expected true or false.' })
  initialRecords?: boolean;
}

export class CreateMockDto extends SeedPlanDto {
  @IsUUID(undefined, { message: 'Expected the id of a design.' })
  design: string;

  @IsArray({ message: 'Expected an array of names of arrangements.' })
  @ArrayMaxSize(20, { message: 'Expected at most 20 arrangements.' })
  @EachOnce({ message: 'Expected each arrangement once.' })
  @IsString({ each: true, message: 'Expected names of arrangements.' })
  arrangements: string[];

  @IsOptional()
  @IsArray({ message: 'Expected an array of labels of releases.' })
  @ArrayMaxSize(20, { message: 'Expected at most 20 releases.' })
  @EachOnce({ message: 'Expected each release once.' })
  @IsString({ each: true, message: 'Expected labels of releases.' })
  releases?: string[];

  @IsOptional()
  @IsInt({ message: 'Expected a port from 1024 to 65535.' })
  @Min(1_024, { message: 'Expected a port from 1024 to 65535.' })
  @Max(65_535, { message: 'Expected a port from 1024 to 65535.' })
  port?: number;
}

/** What is to be done about the steps of a migration, by their ids. */
export class DecisionsDto {
  @IsObject({ message: 'Expected an object from ids of steps to what is to be done.' })
  decisions: Record<string, unknown>;
}

export class SnapshotDto implements NewSnapshot {
  @Matches(ARRANGEMENT_NAME, {
    message: 'Expected a name of 1 to 60 letters, digits, spaces, dots, hyphens or underscores.',
  })
  name: string;
}

/** An arrangement or a release of a mock; the first arrangement where neither is named. */
export class ServedDto implements ServedName {
  @IsOptional()
  @IsString({ message: 'Expected the name of an arrangement.' })
  arrangement?: string;

  @IsOptional()
  @IsString({ message: 'Expected the label of a release.' })
  release?: string;
}

export class SendMessageDto extends ServedDto implements NewMessage {
  @IsString({
    message: 'Expected a request as it travels: request line, header lines, an empty line, a body.',
  })
  @MaxLength(2_000_000, { message: 'Expected at most 2000000 characters.' })
  message: string;
}

export class MocksQueryDto implements AsText<MocksQuery> {
  @IsOptional()
  @IsString({ message: 'Expected the id of a design.' })
  design?: string;
}

/** What a message is sent to; `null` where nothing is named. */
export function servedIn({ arrangement, release }: ServedDto): Served | null {
  if (release !== undefined) return { kind: 'release', label: release };
  return arrangement === undefined ? null : { kind: 'arrangement', name: arrangement };
}

export class LoadQueryDto implements AsText<LoadQuery> {
  @IsOptional()
  @Matches(/^(?:[1-9]\d?|[1-5]\d\d|600)$/, { message: 'Expected a whole number from 1 to 600.' })
  seconds?: string;
}
