import type { PageQuery } from '@isomeros/api';
import { IsOptional, IsString, Matches } from 'class-validator';
import { MAX_PAGE_SIZE } from './pagination.js';

/** Parameters as they stand in a query: all of them texts. */
export type AsText<Query> = { readonly [Name in keyof Query]: string };

/** Which page of a list. */
export class PageQueryDto implements AsText<PageQuery> {
  @IsOptional()
  @Matches(/^(?:[1-9]\d?|1\d\d|200)$/, { message: `Expected a whole number from 1 to ${MAX_PAGE_SIZE}.` })
  limit?: string;

  @IsOptional()
  @IsString({ message: 'Expected a cursor that an earlier page gave.' })
  cursor?: string;
}
