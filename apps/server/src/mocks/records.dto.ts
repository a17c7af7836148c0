import type { ExportQuery, ImportQuery, TableQuery, TypeExportQuery } from '@isomeros/api';
import type { ImportMode } from '@isomeros/core/transfer';
import { IsIn, IsOptional, IsString, MaxLength } from 'class-validator';
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
