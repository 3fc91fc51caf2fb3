import path from 'node:path'

export type Config = {
  /** 0 lets the system choose, for tests. */
  port: number
  host: string
  /** Folder of everything Nibquill keeps on disk besides the database. */
  dataFolder: string
  databaseUrl: string
  /**
   * Where people reach Nibquill: stands in QR codes and invitations, and decides whether cookies
   * are Secure.
   */
  publicUrl: string
  /** Built web client; null serves the API alone. */
  clientFolder: string | null
  /** Trusted reverse proxies in front (Express "trust proxy"). */
  trustProxy: string | false
  /** Mail server (`smtp://…`); null: letters stay in the post box. */
  smtpUrl: string | null
  mailFrom: string
  logLevel: string
}

const ROOT = path.resolve(import.meta.dirname, '../../..')

/** Reads the settings listed in the README from environment variables. */
export function readConfig(env: NodeJS.ProcessEnv, databaseUrl: string): Config {
  const port = Number(env.PORT ?? 4310)
  return {
    port,
    host: env.HOST ?? '0.0.0.0',
    dataFolder: dataFolderOf(env),
    databaseUrl,
    publicUrl: (env.NIBQUILL_URL ?? `http://localhost:${port}`).replace(/\/+$/, ''),
    clientFolder: path.join(ROOT, 'client/dist'),
    trustProxy: env.NIBQUILL_TRUST_PROXY ?? false,
    smtpUrl: env.NIBQUILL_SMTP ?? null,
    mailFrom: env.NIBQUILL_MAIL_FROM ?? 'Nibquill <nibquill@localhost>',
    logLevel: env.NIBQUILL_LOG ?? 'info',
  }
}

export function dataFolderOf(env: NodeJS.ProcessEnv): string {
  return path.resolve(ROOT, env.NIBQUILL_DATA ?? '.data')
}
