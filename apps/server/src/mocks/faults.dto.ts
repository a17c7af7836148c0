import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  Min,
} from 'class-validator';
import { Nested } from '../http/nested.js';

const RATE = { message: 'Expected a number from 0 to 1.' };
const MS = { message: 'Expected milliseconds from 0 to 60000.' };

const PACE = { message: 'Expected whole bytes a second, at least 1.' };

export class LatencyDto {
  @IsIn(['fixed', 'uniform', 'normal'], { message: 'Expected fixed, uniform or normal.' })
  kind: 'fixed' | 'uniform' | 'normal';

  @IsOptional()
  @IsNumber({}, MS)
  @Min(0, MS)
  @Max(60_000, MS)
  ms?: number;

  @IsOptional()
  @IsNumber({}, MS)
  @Min(0, MS)
  @Max(60_000, MS)
  from?: number;

  @IsOptional()
  @IsNumber({}, MS)
  @Min(0, MS)
  @Max(60_000, MS)
  to?: number;

  @IsOptional()
  @IsNumber({}, MS)
  @Min(0, MS)
  @Max(60_000, MS)
  mean?: number;

  @IsOptional()
  @IsNumber({}, MS)
  @Min(0, MS)
  @Max(60_000, MS)
  deviation?: number;
}

export class FailureDto {
  @IsIn([429, 500, 502, 503, 504], { message: 'Expected 429, 500, 502, 503 or 504.' })
  status: 429 | 500 | 502 | 503 | 504;

  @IsNumber({}, RATE)
  @Min(0, RATE)
  @Max(1, RATE)
  rate: number;
}

export class FaultRuleDto {
  @IsOptional()
  @IsString({ message: 'Expected the id of an operation.' })
  operation?: string;

  @IsOptional()
  @Nested(() => LatencyDto)
  latency?: LatencyDto;

  @IsOptional()
  @IsArray({ message: 'Expected an array of failures.' })
  @ArrayMaxSize(10, { message: 'Expected at most 10 failures.' })
  @Nested(() => FailureDto, { each: true })
  failures?: FailureDto[];

  @IsOptional()
  @IsNumber({}, RATE)
  @Min(0, RATE)
  @Max(1, RATE)
  drop?: number;

  @IsOptional()
  @IsInt(PACE)
  @Min(1, PACE)
  @Max(1_000_000_000, PACE)
  bytesPerSecond?: number;
}

export class FaultsDto {
  @IsInt({ message: 'Expected a whole number from 0 to 4294967295.' })
  @Min(0, { message: 'Expected a whole number from 0 to 4294967295.' })
  @Max(4_294_967_295, { message: 'Expected a whole number from 0 to 4294967295.' })
  seed: number;

  @IsArray({ message: 'Expected an array of what goes wrong.' })
  @ArrayMaxSize(100, { message: 'Expected at most 100 entries.' })
  @Nested(() => FaultRuleDto, { each: true })
  items: FaultRuleDto[];
}

/** What each kind of latency is told by; every one of them must be there. */
export const LATENCY_PARTS = {
  fixed: ['ms'],
  uniform: ['from', 'to'],
  normal: ['mean', 'deviation'],
} as const;
