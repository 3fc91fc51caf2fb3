import { pino, type Logger } from 'pino'

export type Log = Logger
/** Structured logs. They carry ids, routes, codes and durations; never names, titles or words of children. */
export const openLog = (level: string): Log => pino({ level, base: null })
