import type { ProblemDetail } from '@isomeros/core/engine';
import { ValidationPipe } from '@nestjs/common';
import type { ValidationError } from 'class-validator';
import { ApiProblem } from './problem.js';

/** Checks every body against its class; all errors are answered at once, each with a JSON pointer. */
export function bodyValidation(): ValidationPipe {
  return new ValidationPipe({
    transform: true,
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
    stopAtFirstError: true,
    exceptionFactory: (errors) => {
      const details = errors.flatMap((error) => detailsOf(error, ''));
      const detail =
        details.length === 1
          ? 'One thing in the body does not fit.'
          : `${details.length} things in the body do not fit.`;
      return new ApiProblem('invalid', detail, { errors: details });
    },
  });
}

function detailsOf(error: ValidationError, above: string): ProblemDetail[] {
  const pointer = `${above}/${error.property.replaceAll('~', '~0').replaceAll('/', '~1')}`;
  const own = Object.entries(error.constraints ?? {}).map(([code, message]) =>
    code === 'whitelistValidation'
      ? { pointer, code: 'unknown', message: `There is no member ${error.property} to send here.` }
      : { pointer, code, message },
  );
  return [...own, ...(error.children ?? []).flatMap((child) => detailsOf(child, pointer))];
}
