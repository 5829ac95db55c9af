import fs from 'node:fs';
import path from 'node:path';
import nodemailer from 'nodemailer';
import { daemonFolder, daemonUser, giveAway, startDaemon } from './daemon';
import type { StandIn } from './server';

export interface MailboxesOptions {
  readonly imapPort: number;
  readonly lmtpPort: number;
  /** passwords by address */
  readonly accounts: Readonly<Record<string, string>>;
  /** where it asks whose a token is, up to the token; without it nobody signs in by one */
  readonly tokensAt?: string;
}

/** Mailboxes in a real IMAP server, Dovecot. Mails are put in by LMTP. */
export async function startMailboxes(options: MailboxesOptions): Promise<StandIn & { deliver(to: string, raw: Buffer): Promise<void> }> {
  const folder = daemonFolder('mail');
  const users = path.join(folder, 'users');
  fs.writeFileSync(
    users,
    Object.entries(options.accounts)
      .map(([address, password]) => `${address}:{PLAIN}${password}:::::\n`)
      .join(''),
  );
  const config = path.join(folder, 'dovecot.conf');
  fs.writeFileSync(config, configOf(folder, users, options));
  const tokens = path.join(folder, 'tokens.conf');
  fs.writeFileSync(
    tokens,
    `tokeninfo_url = ${options.tokensAt ?? ''}\nintrospection_mode = auth\nusername_attribute = email\nactive_attribute = active\nactive_value = true\n`,
  );
  for (const name of ['run', 'state', 'mail']) {
    fs.mkdirSync(path.join(folder, name));
    giveAway(path.join(folder, name));
  }
  for (const file of [users, tokens, config]) giveAway(file);
  const daemon = await startDaemon({ folder, command: ['dovecot', '-F', '-c', config], port: options.imapPort, greeting: '* OK' });
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port: options.lmtpPort, lmtp: true, ignoreTLS: true } as never);
  return {
    port: options.imapPort,
    async deliver(to, raw) {
      await transport.sendMail({ envelope: { from: 'bounce@standin.example', to }, raw });
    },
    async close() {
      transport.close();
      await daemon.close();
    },
  };
}

/** Every `EML` file of a folder in the mailbox its `Delivered-To` names. */
export async function deliverAll(folder: string, deliver: (to: string, raw: Buffer) => Promise<void>): Promise<void> {
  for (const file of fs
    .readdirSync(folder)
    .filter((name) => name.endsWith('.eml'))
    .sort()) {
    const raw = filled(fs.readFileSync(path.join(folder, file)));
    const to = /^Delivered-To: *(\S+)/im.exec(raw.toString('latin1'))?.[1];
    if (to !== undefined) await deliver(to, raw);
  }
}

/** A mail whose head says to how many bytes it is filled has that much in place of `{filling}`: nobody keeps such a file. */
function filled(raw: Buffer): Buffer {
  const bytes = Number(/^X-Filled-To: (\d{1,9})\r?$/m.exec(raw.subarray(0, 2_000).toString('latin1'))?.[1] ?? 0);
  if (bytes === 0) return raw;
  const line = `${'A'.repeat(76)}\r\n`;
  return Buffer.from(raw.toString('utf8').replace('{filling}', line.repeat(Math.ceil(bytes / line.length))));
}

function configOf(folder: string, users: string, { imapPort, lmtpPort, tokensAt }: MailboxesOptions): string {
  const { user, group } = daemonUser();
  return `base_dir = ${folder}/run
state_dir = ${folder}/state
log_path = /dev/stderr
instance_name = millrace-${imapPort}
protocols = imap lmtp
listen = 127.0.0.1
ssl = no
disable_plaintext_auth = no
auth_failure_delay = 0
default_internal_user = ${user}
default_internal_group = ${group}
default_login_user = ${user}
mail_location = maildir:~/Maildir
first_valid_uid = 1
mail_max_userip_connections = 100
${tokensAt === undefined ? '' : `auth_mechanisms = plain xoauth2 oauthbearer\npassdb {\n  driver = oauth2\n  mechanisms = xoauth2 oauthbearer\n  args = ${folder}/tokens.conf\n}`}
passdb {
  driver = passwd-file
  args = username_format=%u ${users}
}
userdb {
  driver = passwd-file
  args = username_format=%u ${users}
  override_fields = uid=${user} gid=${group} home=${folder}/mail/%u
}
namespace inbox {
  inbox = yes
  separator = /
}
service imap-login {
  chroot =
  inet_listener imap {
    port = ${imapPort}
  }
  inet_listener imaps {
    port = 0
  }
  service_count = 0
  process_min_avail = 1
}
service lmtp {
  process_min_avail = 1
  inet_listener lmtp {
    address = 127.0.0.1
    port = ${lmtpPort}
  }
}
service anvil {
  chroot =
}
service stats {
  chroot =
}
`;
}
