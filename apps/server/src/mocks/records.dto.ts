import type { ExportQuery, ImportQuery, TableQuery, TypeExportQuery } from '@isomeros/api';
import type { EditedValues } from '@isomeros/core/records';
import type { ImportMode } from '@isomeros/core/transfer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  MaxLength,
  Min,
} from 'class-validator';
import { Nested } from '../http/nested.js';
import { ServedDto } from './mocks.dto.js';
import type { AsText } from '../http/query.dto.js';

export class ExportQueryDto implements ExportQuery {
  @IsOptional()
  @IsIn(['include'], { message: 'Expected secrets=include, or nothing.' })
  secrets?: 'include';
}

export class TypeExportQueryDto extends ExportQueryDto implements TypeExportQuery {
  @IsOptional()
  @IsIn(['json', 'csv'], { message: 'Expected as=json or as=csv.' })
  as?: 'json' | 'csv';
}

export class ImportQueryDto implements ImportQuery {
  @IsOptional()
  @IsIn(['merge', 'replace'], { message: 'Expected mode=merge or mode=replace.' })
  mode?: ImportMode;

  @IsOptional()
  @IsIn(['only'], { message: 'Expected check=only, or nothing.' })
  check?: 'only';
}

export class TableQueryDto implements AsText<TableQuery> {
  @IsOptional()
  @IsString({ message: 'Expected one text.' })
  @MaxLength(2_000, { message: 'Expected at most 2000 characters.' })
  find?: string;

  @IsOptional()
  @IsString({ message: 'Expected one name.' })
  @MaxLength(200, { message: 'Expected at most 200 characters.' })
  sort?: string;

  @IsOptional()
  // `readOffset` says which numbers may be.
  @IsString({ message: 'Expected one whole number.' })
  offset?: string;

  @IsOptional()
  // `readLimit` says which numbers may be.
  @IsString({ message: 'Expected one whole number.' })
  limit?: string;
}

export class RecordEditDto {
  @IsIn(['add', 'change', 'remove'], { message: 'Expected add, change or remove.' })
  kind: 'add' | 'change' | 'remove';

  @IsString({ message: 'Expected the name of a type of record.' })
  @MaxLength(200, { message: 'Expected at most 200 characters.' })
  type: string;

  /** Of a record that is there. */
  @IsOptional()
  @IsInt({ message: 'Expected the number of a record.' })
  @Min(1, { message: 'Expected the number of a record.' })
  number?: number;

  /** The one that was seen. */
  @IsOptional()
  @IsInt({ message: 'Expected the version of a record.' })
  @Min(1, { message: 'Expected the version of a record.' })
  version?: number;

  /** By the names of columns. */
  @IsOptional()
  @IsObject({ message: 'Expected an object from names of columns to values.' })
  values?: EditedValues;
}

export class RecordEditsDto extends ServedDto {
  @IsArray({ message: 'Expected an array of edits.' })
  @ArrayMinSize(1, { message: 'Expected at least one edit.' })
  @ArrayMaxSize(500, { message: 'Expected at most 500 edits.' })
  @Nested(() => RecordEditDto, { each: true })
  edits: RecordEditDto[];

  @IsOptional()
  @IsIn(['contract', 'around'], { message: 'Expected way contract or around.' })
  way?: 'contract' | 'around';
}
