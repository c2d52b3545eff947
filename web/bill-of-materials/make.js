// Writes the bill of materials of a built program, CycloneDX 1.6 in JSON: every package that ships, with its licence and the
// text of it. Called behind the builds of server and front end: node make.js FOLDER-OF-THE-SERVER.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Enums, Models, Serialize, Spec } from '@cyclonedx/cyclonedx-library';
import spdx from 'spdx-license-list/full.js';

const web = dirname(dirname(fileURLToPath(import.meta.url)));
const root = dirname(web);
const folder = process.argv[2];
if (!folder) {
  console.error('usage: node make.js FOLDER-OF-THE-SERVER');
  process.exit(2);
}
const json = (path) => JSON.parse(readFileSync(path, 'utf8'));
const version = /<Version>(.*?)<\/Version>/.exec(
  readFileSync(join(root, 'Directory.Build.props'), 'utf8'),
)[1];

const bom = new Models.Bom();
bom.serialNumber = `urn:uuid:${crypto.randomUUID()}`;
bom.metadata.timestamp = new Date();
const program = new Models.Component(Enums.ComponentType.Application, 'pyrometron', {
  version,
  bomRef: 'pyrometron',
});
bom.metadata.component = program;

for (const component of [...ofRuntime(), ...ofNuget(), ...ofNpm(), commonPasswords()]) {
  bom.components.add(component);
  program.dependencies.add(component.bomRef);
}
const text = new Serialize.JsonSerializer(new Serialize.JSON.Normalize.Factory(Spec.Spec1dot6)).serialize(
  bom,
  {
    sortLists: true,
    space: 1,
  },
);
writeFileSync(join(folder, 'bill-of-materials.cdx.json'), text);

/** The runtime: in the program's folder where it is published with one, else asked of the machine. */
function ofRuntime() {
  const packs = Object.keys(deps().libraries).filter((name) => name.startsWith('runtimepack.'));
  const needed =
    packs.length > 0
      ? packs.map((name) => name.replace('runtimepack.', '').split('/'))
      : json(join(folder, 'Pyrometron.Server.runtimeconfig.json')).runtimeOptions.frameworks.map((f) => [
          f.name,
          f.version,
        ]);
  return needed.map(([name, v]) =>
    component({ type: 'framework', name, version: v, purl: `pkg:nuget/${name}@${v}` }, 'MIT'),
  );
}

/** What the server is made of, with what its packages bring for this platform. */
function ofNuget() {
  const packages = process.env.NUGET_PACKAGES ?? join(homedir(), '.nuget', 'packages');
  return Object.entries(deps().libraries)
    .filter(([, library]) => library.type === 'package')
    .filter(([name]) => !/\.(osx|win|macos|win32)\b/i.test(name.replace(/^Microsoft\.Win32/, '')))
    .map(([name, library]) => {
      const [id, v] = name.split('/');
      const at = join(packages, library.path);
      const spec = readFileSync(join(at, `${id.toLowerCase()}.nuspec`), 'utf8');
      const field = (tag) => new RegExp(`<${tag}(?: [^>]*)?>([^<]*)</${tag}>`).exec(spec)?.[1].trim();
      const file = /<license type="file">([^<]*)</.exec(spec)?.[1];
      const own = file ? readFileSync(join(at, file), 'utf8') : licenceFile(at);
      const made = component(
        {
          name: id,
          version: v,
          purl: `pkg:nuget/${id}@${v}`,
          copyright: field('copyright') ?? field('authors'),
        },
        file ? null : field('license'),
        own,
      );
      // A package's hash in the lock file and here: SHA-512, which CycloneDX writes in hexadecimal digits.
      if (library.sha512)
        made.hashes.set(
          Enums.HashAlgorithm['SHA-512'],
          Buffer.from(library.sha512.replace('sha512-', ''), 'base64').toString('hex'),
        );
      return made;
    });
}

/** What stands in the front end, and the parts of which the tool for working offline makes its script. */
function ofNpm() {
  const bundled = readFileSync(join(root, 'artifacts', 'bundled.txt'), 'utf8')
    .split('\n')
    .filter(Boolean);
  const served = join(root, 'src', 'Pyrometron.Server', 'wwwroot');
  const offline = readdirSync(served)
    .filter((f) => /^workbox-.*\.js$/.test(f))
    .flatMap((f) =>
      [...readFileSync(join(served, f), 'utf8').matchAll(/workbox:([a-z-]+):\d/g)].map((m) => m[1]),
    )
    .map((part) => join(web, 'node_modules', `workbox-${part}`));
  return [...new Set([...bundled, ...offline])]
    .filter((at) => existsSync(join(at, 'package.json')))
    .map((at) => {
      const { name, version: v, license, author } = json(join(at, 'package.json'));
      const copyright = typeof author === 'string' ? author : author?.name;
      return component(
        { name, version: v, purl: npmUrl(name, v), copyright },
        typeof license === 'string' ? license : license?.type,
        licenceFile(at),
      );
    });
}

/** The list of passwords that many people use ships as hashes; its package is needed to make them only. */
function commonPasswords() {
  const [name, version] = ['@zxcvbn-ts/language-common', '3.0.4'];
  return component({ type: 'data', name, version, purl: npmUrl(name, version) }, 'MIT');
}

/** A component with its licence: by the name that SPDX gives it where it has one, with its own text or else SPDX's. */
function component({ type = 'library', name, version, purl, copyright }, licence, own) {
  const made = new Models.Component(type, name, { version, bomRef: purl, purl });
  // Whose it is, without a way to write to them.
  made.copyright = copyright?.replace(/\s*<[^>]*@[^>]*>/g, '');
  const id = licence ?? (own && /permission is hereby granted, free of charge/i.test(own) ? 'MIT' : null);
  const says =
    own ??
    spdx[id]?.licenseText.replace(
      /copyright \(c\) <year> <(copyright holders|owner)>/i,
      (whole) => made.copyright ?? whole,
    );
  if (!says)
    throw new Error(
      `${name} ${version}: no licence is known for it ('${licence}'). Find its text before it ships.`,
    );
  const text = new Models.Attachment(says.replace(/\r\n/g, '\n').trim(), { contentType: 'text/plain' });
  made.licenses.add(
    spdx[id]
      ? new Models.SpdxLicense(id, { text })
      : new Models.NamedLicense(licence ?? 'see its text', { text }),
  );
  return made;
}

function npmUrl(name, version) {
  return `pkg:npm/${name.replace('@', '%40')}@${version}`;
}

/** The licence that a package ships, as text; undefined for none. */
function licenceFile(at) {
  const name = readdirSync(at).find((f) => /^(licen[cs]e|copying)(\.(txt|md))?$/i.test(f));
  return name && readFileSync(join(at, name), 'utf8');
}

function deps() {
  return json(join(folder, 'Pyrometron.Server.deps.json'));
}
