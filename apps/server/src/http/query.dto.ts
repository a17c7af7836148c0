import type { PageQuery } from '@isomeros/api';
import { IsOptional, IsString } from 'class-validator';

/** Parameters as they stand in a query: all of them texts. */
export type AsText<Query> = { readonly [Name in keyof Query]: string };

/** Which page of a list. */
export class PageQueryDto implements AsText<PageQuery> {
  @IsOptional()
  // `readLimit` says which numbers may be.
  @IsString({ message: 'Expected one whole number.' })
  limit?: string;

  @IsOptional()
  @IsString({ message: 'Expected a cursor that an earlier page gave.' })
  cursor?: string;
}
