import { readSettings, SETTINGS, settingsHelp, usualDataFolder } from './settings';

const read = (env: Record<string, string>) => readSettings(env, false);
const problems = (env: Record<string, string>): readonly string[] => {
  const settings = read(env);
  return 'problems' in settings ? settings.problems : [];
};

it('nothing set: every default, the data folder under the home folder', () => {
  expect(read({ HOME: '/home/marit' })).toEqual({
    ...{ PORT: 3210, DOOR_PORT: 3211, RED_PLUMB_ADDRESS: '0.0.0.0', RED_PLUMB_LOG_LEVEL: 'info' },
    ...{ RED_PLUMB_URL: null, RED_PLUMB_TRUSTED_PROXIES: [], DATABASE_URL: null },
    RED_PLUMB_DATA: '/home/marit/.local/share/red-plumb',
    RED_PLUMB_BACKUPS: '/home/marit/.local/share/red-plumb/backups',
  });
});

it('an empty variable counts as not set, a variable of others is passed over', () => {
  expect(read({ HOME: '/h', PORT: '', LANG: 'C' })).toMatchObject({ PORT: 3210 });
});

it.each<[string, string, RegExp]>([
  ['PORT', 'abc', /^PORT is "abc"\. It must be a whole number from 1 to 65535\.$/],
  ['PORT', '70000', /^PORT is "70000"/],
  ['DOOR_PORT', '3210', /^DOOR_PORT is "3210"\. It must be a whole number from 1 to 65535, other than PORT\.$/],
  [
    'RED_PLUMB_ADDRESS',
    'everywhere',
    /^RED_PLUMB_ADDRESS is "everywhere"\. It must be an IP address of this machine\.$/,
  ],
  ['RED_PLUMB_URL', 'plumb.example', /must be an address such as https:\/\/plumb\.example\.$/],
  ['RED_PLUMB_URL', 'ftp://plumb.example', /^RED_PLUMB_URL is/],
  ['RED_PLUMB_TRUSTED_PROXIES', '10.0.0.0/40', /must be IP addresses or networks/],
  [
    'RED_PLUMB_DATA',
    'data',
    /^RED_PLUMB_DATA is "data"\. It must be the full path of a folder, such as \/srv\/red-plumb\.$/,
  ],
  ['DATABASE_URL', 'mysql://h/db', /^DATABASE_URL is "mysql:\/\/h\/db"\. It must be an address such as postgresql:/],
  ['RED_PLUMB_LOG_LEVEL', 'loud', /must be one of fatal, error, warn, info, debug\.$/],
])('%s=%s is refused by name, value and what is expected', (name, value, words) => {
  const found = problems({ [name]: value });
  expect(found).toHaveLength(1);
  expect(found[0]).toMatch(words);
});

it('two wrong settings are both named, a password never', () => {
  const found = problems({ PORT: 'x', DATABASE_URL: 'mysql://me:secret@h/db' }).join('\n');
  expect(found).toMatch(/PORT is "x"[\s\S]*DATABASE_URL is "mysql:\/\/me:\*\*\*@h\/db"/);
  expect(found).not.toContain('secret');
});

it('the door takes the port after PORT', () => {
  expect(read({ PORT: '8080' })).toMatchObject({ DOOR_PORT: 8081 });
  expect(problems({ PORT: '65535' })).toHaveLength(1);
});

it('networks of proxies are taken apart', () => {
  expect(read({ RED_PLUMB_TRUSTED_PROXIES: '127.0.0.1, 10.0.0.0/8,::1' })).toMatchObject({
    RED_PLUMB_TRUSTED_PROXIES: ['127.0.0.1', '10.0.0.0/8', '::1'],
  });
});

it('the usual data folder: the system for root, XDG_DATA_HOME, else the home folder', () => {
  expect(usualDataFolder({ HOME: '/root' }, true)).toBe('/var/lib/red-plumb');
  expect(usualDataFolder({ HOME: '/h', XDG_DATA_HOME: '/x' }, false)).toBe('/x/red-plumb');
  expect(usualDataFolder({ HOME: '/h', XDG_DATA_HOME: 'relative' }, false)).toBe('/h/.local/share/red-plumb');
});

it('the help names every setting with what it takes', () => {
  const help = settingsHelp({ HOME: '/h' }, false);
  for (const [name, schema] of Object.entries(SETTINGS)) {
    expect(help).toContain(`  ${name}\n`);
    expect(help).toContain(`Takes ${String(schema.meta()?.expected)}.`);
  }
});
