import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { onPath, runQuiet, runShown } from './run.mjs';
import { say, stop } from './say.mjs';

const isRoot = process.getuid?.() === 0;

/** Runs apt as root, through sudo without a password when there is one; a clear message when neither is there. */
async function asRoot(args, options) {
  if (isRoot) return runShown(args[0], args.slice(1), options);
  if (runQuiet('sudo', ['-n', 'true']).status === 0) return runShown('sudo', ['-E', ...args], options);
  return 126;
}

const CLUSTER_CONF = '/etc/postgresql-common/createcluster.conf';

/** Installs what is missing of Debian's packages. `wanted`: [{ name, isThere() }]. */
export async function ensureDebianPackages(wanted) {
  const missing = wanted.filter((p) => !p.isThere()).map((p) => p.name);
  if (missing.length === 0) return;
  say(`Installing from Debian: ${missing.join(', ')} ...`);
  const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  if (missing.includes('postgresql') && !existsSync(CLUSTER_CONF)) {
    // So that Debian's package makes no cluster of its own on port 5432.
    await asRoot(
      ['sh', '-c', `mkdir -p /etc/postgresql-common && echo 'create_main_cluster = false' > ${CLUSTER_CONF}`],
      {},
    );
  }
  const options = ['-o', 'DPkg::Lock::Timeout=120', '-o', 'Dpkg::Options::=--force-confold', '-qq'];
  const quiet = { env: environment, stdio: ['ignore', 'ignore', 'inherit'] };
  let status = await asRoot(['apt-get', ...options, 'update'], quiet);
  if (status === 0)
    status = await asRoot(['apt-get', ...options, 'install', '-y', '--no-install-recommends', ...missing], quiet);
  if (status !== 0) {
    stop(
      `Red Plumb needs these Debian packages: ${missing.join(', ')}.\n` +
        (status === 126 ? 'This user may not install them. ' : 'Installing them failed (see above). ') +
        `Ask someone who may to run:\n  apt-get install ${missing.join(' ')}\nand start again.`,
    );
  }
}

const POSTGRES_ROOT = '/usr/lib/postgresql';

/** Folder of the newest PostgreSQL's programs, or null. */
export function postgresBin(major = null) {
  if (!existsSync(POSTGRES_ROOT)) return null;
  const versions = readdirSync(POSTGRES_ROOT)
    .filter((v) => existsSync(`${POSTGRES_ROOT}/${v}/bin/initdb`))
    .sort((a, b) => Number(b) - Number(a));
  const chosen = major ?? versions[0];
  return versions.includes(chosen) ? `${POSTGRES_ROOT}/${chosen}/bin` : null;
}

export const POSTGRES = { name: 'postgresql', isThere: () => postgresBin() !== null };
export const CHROMIUM = { name: 'chromium', isThere: () => existsSync('/usr/bin/chromium') };
export const HP2XX = { name: 'hp2xx', isThere: () => onPath('hp2xx') };
export const MUPDF = { name: 'mupdf-tools', isThere: () => onPath('mutool') };
/** Of Debian's own python3: another one may come first on the path. */
const PYTHON_PACKAGES = '/usr/lib/python3/dist-packages';
export const EZDXF = {
  name: 'python3-ezdxf',
  isThere: () => existsSync(`${PYTHON_PACKAGES}/ezdxf`),
};
export const NUMPY = {
  name: 'python3-numpy',
  isThere: () => existsSync(`${PYTHON_PACKAGES}/numpy`),
};
export const OPENCV = {
  name: 'python3-opencv',
  isThere: () => existsSync(PYTHON_PACKAGES) && readdirSync(PYTHON_PACKAGES).some((file) => file.startsWith('cv2')),
};
export const STATSMODELS = {
  name: 'python3-statsmodels',
  isThere: () => existsSync(`${PYTHON_PACKAGES}/statsmodels`),
};
export const POPPLER = { name: 'poppler-utils', isThere: () => onPath('pdftocairo') };

const STATE = '.red-plumb';

/** Whether `inputs` are as they were when `name` was last done. */
export function isUpToDate(name, digest) {
  return existsSync(`${STATE}/${name}`) && readFileSync(`${STATE}/${name}`, 'utf8') === digest;
}

export function markDone(name, digest) {
  mkdirSync(STATE, { recursive: true });
  writeFileSync(`${STATE}/${name}`, digest);
}

export async function ensureNodePackages() {
  const digest = createHash('sha256').update(readFileSync('package-lock.json')).update(process.version).digest('hex');
  if (existsSync('node_modules/next/package.json') && isUpToDate('packages', digest)) return;
  say('Installing packages (about a minute) ...');
  const status = await runShown('npm', ['ci', '--ignore-scripts', '--loglevel=error'], {
    env: { ...process.env, NODE_ENV: 'development' },
  });
  if (status !== 0) stop('npm ci failed (see above). Check the network and the disk, and start again.');
  markDone('packages', digest);
}
