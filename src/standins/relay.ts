import fs from 'node:fs';
import path from 'node:path';
import { daemonFolder, daemonUser, giveAway, startDaemon } from './daemon';
import type { StandIn } from './server';

export interface RelayOptions {
  readonly port: number;
  /** where mails are handed on, whoever they are for */
  readonly lmtpPort: number;
  /** passwords by address: who may write from it */
  readonly accounts: Readonly<Record<string, string>>;
}

/** A real mail server, Exim: it takes mails of who signs in, and brings them to the mailboxes; who has none there, it refuses. */
export async function startRelay(options: RelayOptions): Promise<StandIn> {
  const folder = daemonFolder('relay');
  for (const name of ['spool', 'log']) {
    fs.mkdirSync(path.join(folder, name));
    giveAway(path.join(folder, name));
  }
  const users = path.join(folder, 'users');
  fs.writeFileSync(
    users,
    Object.entries(options.accounts)
      .map(([address, password]) => `${address}: ${password}\n`)
      .join(''),
  );
  const config = path.join(folder, 'exim.conf');
  fs.writeFileSync(config, configOf(folder, users, options.lmtpPort));
  for (const file of [users, config]) giveAway(file);
  const command = ['/usr/sbin/exim4', '-C', config, '-bdf', '-q5s', '-oX', `127.0.0.1.${options.port}`];
  const daemon = await startDaemon({ folder, command, port: options.port, greeting: '220' });
  return {
    port: options.port,
    close: () => daemon.close(),
  };
}

/** Only who signs in writes, and only from the address they signed in with. */
function configOf(folder: string, users: string, lmtpPort: number): string {
  const { user, group } = daemonUser();
  const password = `\${lookup{$auth2}lsearch{${users}}{$value}fail}`;
  return `exim_user = ${user}
exim_group = ${group}
deliver_drop_privilege = true
never_users =
spool_directory = ${folder}/spool
log_file_path = ${folder}/log/%slog
pid_file_path = ${folder}/exim.pid
primary_hostname = relay.standin.example
tls_advertise_hosts =
host_lookup =
rfc1413_hosts =
acl_smtp_rcpt = rcpt
acl_smtp_data = data
keep_environment =

begin acl
rcpt:
  deny !authenticated = *
       message = sign in first
  deny condition = \${if !eqi{$sender_address}{$authenticated_id}}
       message = $authenticated_id may not write from $sender_address
  deny !condition = \${lookup{$local_part@$domain}lsearch{${users}}{1}{0}}
       message = there is no mailbox $local_part@$domain here
  accept
data:
  accept

begin routers
boxes:
  driver = manualroute
  domains = *
  route_list = * 127.0.0.1
  self = send
  transport = boxes

begin transports
boxes:
  driver = smtp
  protocol = lmtp
  port = ${lmtpPort}
  hosts_avoid_tls = *
  allow_localhost

begin retry
* * F,1h,2s

begin authenticators
plain:
  driver = plaintext
  public_name = PLAIN
  server_advertise_condition = yes
  server_prompts = :
  server_condition = \${if eq{$auth3}{${password}}}
  server_set_id = $auth2
`;
}
