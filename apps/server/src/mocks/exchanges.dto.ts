import type { ExchangesQuery, PageQuery } from '@isomeros/api';
import { IsIn, IsOptional, IsString, Matches, MaxLength } from 'class-validator';
import type { AsText } from '../http/query.dto.js';
import type { ExchangeFilter } from './journal/exchangeFilter.js';

const STATUS_CLASSES: readonly string[] = ['1xx', '2xx', '3xx', '4xx', '5xx', 'cut'];

/** Which exchanges are looked for. */
export class ExchangesQueryDto implements AsText<ExchangesQuery> {
  @IsOptional()
  @IsString({ message: 'Expected the id of an operation.' })
  @MaxLength(200, { message: 'Expected at most 200 characters.' })
  operation?: string;

  @IsOptional()
  @IsIn(STATUS_CLASSES, { message: `Expected one of ${STATUS_CLASSES.join(', ')}.` })
  status?: string;

  @IsOptional()
  @IsString({ message: 'Expected a part of a target.' })
  @MaxLength(500, { message: 'Expected at most 500 characters.' })
  path?: string;

  @IsOptional()
  @IsString({ message: 'Expected the name of a client.' })
  @MaxLength(200, { message: 'Expected at most 200 characters.' })
  client?: string;

  @IsOptional()
  @Matches(/^[1-9]\d{0,14}$/, { message: 'Expected the number of a record.' })
  record?: string;
}

/** Which page of the exchanges that are looked for. */
export class ExchangesPageQueryDto extends ExchangesQueryDto implements AsText<ExchangesQuery & PageQuery> {
  @IsOptional()
  // `readLimit` says which numbers may be.
  @IsString({ message: 'Expected one whole number.' })
  limit?: string;

  @IsOptional()
  @IsString({ message: 'Expected a cursor that an earlier page gave.' })
  cursor?: string;
}

/** What is looked for, as the journal reads it. */
export const exchangeFilter = ({
  operation,
  status,
  path,
  client,
  record,
}: ExchangesQueryDto): ExchangeFilter => ({
  operation,
  statusClass: status === undefined ? undefined : status === 'cut' ? 0 : Number(status.charAt(0)),
  path,
  client,
  record: record === undefined ? undefined : Number(record),
});
