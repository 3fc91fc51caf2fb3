import path from 'node:path'

/** A bucket of an S3-compatible store. */
export type S3Config = {
  endpoint: string
  region: string
  bucket: string
  keyId: string
  secret: string
}

export type Config = {
  /** 0 lets the system choose, for tests. */
  port: number
  host: string
  /** Folder of everything Nibquill keeps on disk besides the database. */
  dataFolder: string
  databaseUrl: string
  /** How long a page waits for an answer of the database, in milliseconds. */
  pagePatienceMs: number
  /** Where files lie, and what is arriving; null: in the data folder. */
  s3: S3Config | null
  /**
   * Where people reach Nibquill: stands in QR codes and invitations, and decides whether cookies
   * are Secure.
   */
  publicUrl: string
  /** Built web client; null serves the API alone. */
  clientFolder: string | null
  /** Trusted reverse proxies in front (Express "trust proxy"). */
  trustProxy: string | false
  /** So long a connection is kept on which nothing is asked. */
  keepConnectionsMs: number
  /** Mail server (`smtp://…`); null: letters stay in the post box. */
  smtpUrl: string | null
  mailFrom: string
  logLevel: string
}

/**
 * Longer than the minute for which proxies keep theirs, or one of them asks on a connection that is
 * just being closed, and its request is lost.
 */
export const KEEP_CONNECTIONS_MS = 75_000

/** So that a database which has stopped answering is said to be away within three seconds. */
export const PAGE_PATIENCE_MS = 2500

const ROOT = path.resolve(import.meta.dirname, '../../..')

/** Reads the settings listed in the README from environment variables. */
export function readConfig(env: NodeJS.ProcessEnv, databaseUrl: string): Config {
  const port = Number(env.PORT ?? 4310)
  return {
    port,
    host: env.HOST ?? '0.0.0.0',
    dataFolder: dataFolderOf(env),
    databaseUrl,
    pagePatienceMs: PAGE_PATIENCE_MS,
    s3: s3Of(env),
    publicUrl: (env.NIBQUILL_URL ?? `http://localhost:${port}`).replace(/\/+$/, ''),
    clientFolder: path.join(ROOT, 'client/dist'),
    trustProxy: env.NIBQUILL_TRUST_PROXY ?? false,
    keepConnectionsMs: KEEP_CONNECTIONS_MS,
    smtpUrl: env.NIBQUILL_SMTP ?? null,
    mailFrom: env.NIBQUILL_MAIL_FROM ?? 'Nibquill <nibquill@localhost>',
    logLevel: env.NIBQUILL_LOG ?? 'info',
  }
}

/** @throws Error naming the settings that are missing */
export function s3Of(env: NodeJS.ProcessEnv): S3Config | null {
  const names = ['ENDPOINT', 'BUCKET', 'KEY_ID', 'SECRET'] as const
  const missing = names.filter((name) => !env[`NIBQUILL_S3_${name}`])
  if (missing.length === names.length) return null
  if (missing.length > 0)
    throw new Error(
      `For files in an object store also set ${missing.map((name) => `NIBQUILL_S3_${name}`).join(', ')}.`,
    )
  return {
    endpoint: env.NIBQUILL_S3_ENDPOINT!,
    region: env.NIBQUILL_S3_REGION ?? 'us-east-1',
    bucket: env.NIBQUILL_S3_BUCKET!,
    keyId: env.NIBQUILL_S3_KEY_ID!,
    secret: env.NIBQUILL_S3_SECRET!,
  }
}

export function dataFolderOf(env: NodeJS.ProcessEnv): string {
  return path.resolve(ROOT, env.NIBQUILL_DATA ?? '.data')
}
