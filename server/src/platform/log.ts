import { pino, type Logger } from 'pino'

export type Log = Logger
/**
 * Structured logs. They carry ids, routes, codes and durations; never names, titles or words of
 * children.
 */
export const openLog = (level: string): Log => pino({ level, base: null })

/**
 * Words that addresses are made of; everything else in one is an id, a token or something a person
 * typed.
 */
const PLAIN = /^[a-z][a-z-]{0,24}$/

/**
 * The shape of a request's address: ids, tokens and whatever else is not one of our words are left
 * out.
 */
export const routeOf = ({ originalUrl }: { originalUrl: string }): string =>
  originalUrl
    .split('?', 1)[0]!
    .split('/')
    .map((part) => (part === '' || PLAIN.test(part) ? part : ':'))
    .join('/')
