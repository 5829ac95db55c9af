import fs from 'node:fs';
import path from 'node:path';
import { request } from 'undici';
import { daemonFolder, giveAway, startDaemon } from './daemon';
import type { StandIn } from './server';

export interface CalendarsOptions {
  readonly port: number;
  readonly user: string;
  readonly password: string;
  /** a folder per calendar, with an iCalendar file per event */
  readonly folder: string;
}

/** Calendars in a real CalDAV server, Radicale. */
export async function startCalendars(
  options: CalendarsOptions,
): Promise<StandIn & { put(calendar: string, name: string, ics: string): Promise<void> }> {
  const folder = daemonFolder('cal');
  const users = path.join(folder, 'users');
  fs.writeFileSync(users, `${options.user}:${options.password}\n`);
  const config = path.join(folder, 'config');
  fs.writeFileSync(
    config,
    `[server]
hosts = 127.0.0.1:${options.port}
[auth]
type = htpasswd
htpasswd_filename = ${users}
htpasswd_encryption = plain
delay = 0
[rights]
type = owner_only
[storage]
filesystem_folder = ${folder}/collections
[web]
type = none
[logging]
level = warning
`,
  );
  for (const file of [users, config]) giveAway(file);
  const daemon = await startDaemon({ folder, command: ['/usr/bin/python3', '-m', 'radicale', '-C', config], port: options.port });
  const base = `http://127.0.0.1:${options.port}/${options.user}`;
  const authorization = `Basic ${Buffer.from(`${options.user}:${options.password}`).toString('base64')}`;
  const call = async (method: string, url: string, body: string, type: string): Promise<void> => {
    const answer = await request(url, { method: method as 'PUT', headers: { authorization, 'content-type': type }, body });
    await answer.body.dump();
    if (answer.statusCode >= 400 && answer.statusCode !== 409) throw new Error(`${method} ${url}: ${answer.statusCode}`);
  };
  const put = (calendar: string, name: string, ics: string): Promise<void> =>
    call('PUT', `${base}/${calendar}/${name}`, ics, 'text/calendar; charset=utf-8');
  for (const calendar of fs.readdirSync(options.folder)) {
    await call('MKCALENDAR', `${base}/${calendar}/`, '', 'application/xml');
    for (const file of fs.readdirSync(path.join(options.folder, calendar)))
      await put(calendar, file, fs.readFileSync(path.join(options.folder, calendar, file), 'utf8'));
  }
  return { port: options.port, put, close: () => daemon.close() };
}
