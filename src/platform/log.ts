import pino, { type Logger } from 'pino';
import { config } from './config';

/**
 * The log of a part of the product, as lines of JSON. Errors go in as `err`, with their cause and stack; what could let
 * a person in never does.
 */
export function logOf(part: string): Logger {
  return pino({
    level: config().LOG_LEVEL,
    base: { part },
    serializers: { err: pino.stdSerializers.errWithCause },
    redact: {
      paths: [
        '*.password',
        '*.token',
        '*.cookie',
        '*.authorization',
        '*.secret',
        '*.code',
        'err.*.parameters',
      ],
      censor: '(left out)',
    },
  });
}
