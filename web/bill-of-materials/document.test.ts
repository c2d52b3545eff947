import { readFileSync } from 'node:fs';
import { Spec, Validation } from '@cyclonedx/cyclonedx-library';
import { expect, test } from 'vitest';

/** As the build put it beside the server. */
const DOCUMENT = '../src/Pyrometron.Server/bin/Release/net10.0/bill-of-materials.cdx.json';

interface Bom {
  readonly components: readonly {
    readonly name: string;
    readonly version?: string;
    readonly purl?: string;
    readonly licenses?: readonly unknown[];
  }[];
}

const text = readFileSync(DOCUMENT, 'utf8');

test('the bill of materials holds the published schema of CycloneDX 1.6, in which nothing else may stand', async () => {
  const validator = new Validation.JsonStrictValidator(Spec.Version.v1dot6);
  expect(await validator.validate(text)).toBeNull();
  // The validator does look: a member that no version knows is refused.
  expect(await validator.validate(text.replace('"components"', '"constituents"'))).not.toBeNull();
});

test('what ships is named once, with its version and its licence', () => {
  const { components } = JSON.parse(text) as Bom;
  expect(components.filter((c) => !c.version && c.purl).map((c) => c.name)).toEqual([]);
  expect(components.filter((c) => !c.licenses?.length).map((c) => c.name)).toEqual([]);
  const named = components.map((c) => c.purl ?? c.name);
  expect(new Set(named).size).toBe(named.length);
  for (const name of ['react', 'antd', 'Microsoft.Data.Sqlite.Core', 'Google.OrTools'])
    expect(components.map((c) => c.name)).toContain(name);
});
