import type { ExportQuery, ImportQuery, TypeExportQuery } from '@isomeros/api';
import type { ImportMode } from '@isomeros/core/transfer';
import { IsIn, IsOptional } from 'class-validator';

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
