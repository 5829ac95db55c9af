import { z } from 'zod';

/** The one reader of the environment. Everything has a default but the database. */
const schema = z.object({
  DATABASE_URL: z.string().min(1),
  PORT: z.coerce.number().int().default(3417),
  MILLRACE_PUBLIC_URL: z.string().optional(),
  MILLRACE_DEMO: z.enum(['0', '1']).default('0'),
  MILLRACE_SMTP: z.string().default('127.0.0.1:25'),
  MILLRACE_INBOUND_PORT: z.coerce.number().int().default(0),
  MILLRACE_STANDIN_WEB: z.string().optional(),
  MILLRACE_STANDIN_MAIL: z.string().optional(),
  MILLRACE_STANDIN_HOOKS: z.string().optional(),
  MILLRACE_STANDIN_IMAP: z.string().optional(),
  MILLRACE_STANDIN_CALENDAR: z.string().optional(),
  MILLRACE_STANDIN_SIGN_IN: z.string().optional(),
  MILLRACE_STANDIN_NAMES: z.string().optional(),
  MILLRACE_PROVIDERS: z.string().optional(),
  MILLRACE_SOURCES: z.string().optional(),
  MILLRACE_WORKSPACE: z.string().optional(),
  MILLRACE_SECRET: z.string().min(16),
  MILLRACE_OLD_SECRET: z.string().optional(),
  MILLRACE_NEW_SECRET: z.string().min(16).optional(),
  MILLRACE_METRICS_KEY: z.string().min(16).optional(),
  MILLRACE_LOG: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
  MILLRACE_HOST: z.string().default('127.0.0.1'),
  MILLRACE_PROXIES: z.string().default(''),
  MILLRACE_PACE: z.coerce.number().positive().default(1),
  MILLRACE_LEASE_MS: z.coerce.number().int().default(60_000),
});

export interface Config {
  readonly databaseUrl: string;
  readonly host: string;
  readonly port: number;
  /** proxies whose word on a client's address is taken */
  readonly proxies: readonly string[];
  readonly publicUrl: string;
  readonly demo: boolean;
  readonly smtp: { readonly host: string; readonly port: number };
  readonly inboundPort: number;
  /** `host:port` of the stand-in web; only with it are `.example` hosts read */
  readonly standinWeb: string | null;
  /** base URL of the mail stand-in's control door: what it accepted, when its next answer is due */
  readonly standinMail: string | null;
  /** `host:port` of the stand-in that takes webhooks */
  readonly standinHooks: string | null;
  /** `host:port` of the mail server that keeps the demo's mailboxes */
  readonly standinImap: string | null;
  /** `host:port` of the calendar server of the demo */
  readonly standinCalendar: string | null;
  /** `host:port` of the sign-in service of the demo */
  readonly standinSignIn: string | null;
  /** `host:port` of the name server of the demo */
  readonly standinNames: string | null;
  /** base URL of the lookup providers */
  readonly providers: string | null;
  /** base URL of the sources on companies and people: news, register, directory, jobs */
  readonly sources: string | null;
  /** a workspace description that an empty database is filled from */
  readonly workspaceFile: string | null;
  /** seals secrets and signs links; at least 16 characters */
  readonly secret: string;
  /** of an earlier installation, which is moved to the key once */
  readonly oldSecret: string | null;
  readonly newSecret: string | null;
  /** with it `/metrics` is answered; null: there is none */
  readonly metricsKey: string | null;
  readonly logLevel: string;
  readonly leaseMs: number;
  /** times the usual limits of calls a minute */
  readonly paceFactor: number;
}

export function readConfig(env: Readonly<Record<string, string | undefined>> = process.env): Config {
  const read = schema.safeParse(env);
  if (!read.success)
    throw new Error(`environment: ${read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; ')}`);
  const { data } = read;
  const [host = '127.0.0.1', port = '25'] = data.MILLRACE_SMTP.split(':');
  return {
    databaseUrl: data.DATABASE_URL,
    host: data.MILLRACE_HOST,
    port: data.PORT,
    proxies: data.MILLRACE_PROXIES.split(',').flatMap((entry) => entry.trim() || []),
    publicUrl: data.MILLRACE_PUBLIC_URL ?? `http://127.0.0.1:${data.PORT}`,
    demo: data.MILLRACE_DEMO === '1',
    smtp: { host, port: Number(port) },
    inboundPort: data.MILLRACE_INBOUND_PORT,
    standinWeb: data.MILLRACE_STANDIN_WEB ?? null,
    standinMail: data.MILLRACE_STANDIN_MAIL ?? null,
    standinHooks: data.MILLRACE_STANDIN_HOOKS ?? null,
    standinImap: data.MILLRACE_STANDIN_IMAP ?? null,
    standinCalendar: data.MILLRACE_STANDIN_CALENDAR ?? null,
    standinNames: data.MILLRACE_STANDIN_NAMES ?? null,
    standinSignIn: data.MILLRACE_STANDIN_SIGN_IN ?? null,
    providers: data.MILLRACE_PROVIDERS ?? null,
    sources: data.MILLRACE_SOURCES ?? null,
    workspaceFile: data.MILLRACE_WORKSPACE ?? null,
    secret: data.MILLRACE_SECRET,
    oldSecret: data.MILLRACE_OLD_SECRET ?? null,
    newSecret: data.MILLRACE_NEW_SECRET ?? null,
    metricsKey: data.MILLRACE_METRICS_KEY ?? null,
    logLevel: data.MILLRACE_LOG,
    leaseMs: data.MILLRACE_LEASE_MS,
    paceFactor: data.MILLRACE_PACE,
  };
}
