import { IsBoolean, IsInt, IsOptional, IsString, Matches, Max, MaxLength, Min } from 'class-validator';

const PORT = { message: 'Expected a port from 1 to 65535.' };

export class LiveSchemaDto {
  @Matches(/^[A-Za-z0-9.:_-]{1,253}$/, { message: 'Expected the name or address of a host.' })
  host: string;

  @IsInt(PORT)
  @Min(1, PORT)
  @Max(65_535, PORT)
  port: number;

  @IsString({ message: 'Expected the name of a user.' })
  @MaxLength(128, { message: 'Expected at most 128 characters.' })
  user: string;

  @IsString({ message: 'Expected a password; it may be empty.' })
  @MaxLength(1_024, { message: 'Expected at most 1024 characters.' })
  password: string;

  @IsString({ message: 'Expected the name of a schema.' })
  @MaxLength(64, { message: 'Expected at most 64 characters.' })
  schema: string;

  /** Confirms that the host need not be on this machine. */
  @IsOptional()
  @IsBoolean({ message: 'Expected true or false.' })
  remote?: boolean;
}
