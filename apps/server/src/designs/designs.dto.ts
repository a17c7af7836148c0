import { Type } from 'class-transformer';
import {
  IsDefined,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  MaxLength,
  MinLength,
  ValidateNested,
} from 'class-validator';

/** What a design can be made from in this version. */
export const SOURCE_FORMATS = ['notation', 'sql'] as const;

export class SourceDto {
  @IsIn(SOURCE_FORMATS, { message: `Expected one of ${SOURCE_FORMATS.join(', ')}.` })
  format: (typeof SOURCE_FORMATS)[number];

  @IsString({ message: 'Expected the text of the model.' })
  text: string;
}

export class CreateDesignDto {
  @IsOptional()
  @IsString({ message: 'Expected the name of the design.' })
  @MinLength(1, { message: 'Expected a name of 1 to 120 characters.' })
  @MaxLength(120, { message: 'Expected a name of 1 to 120 characters.' })
  name?: string;

  @IsDefined({ message: 'Expected an object with format and text.' })
  @IsObject({ message: 'Expected an object with format and text.' })
  @ValidateNested()
  @Type(() => SourceDto)
  source: SourceDto;
}

export class SaveModelDto {
  @IsString({ message: 'Expected the text of the model.' })
  text: string;
}
