// What the start command says when it cannot go on: one sentence, and exit code 1.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));

function ask(code: string) {
  const { status, stderr } = spawnSync(process.execPath, ['--input-type=module', '-e', code], {
    cwd: root,
    encoding: 'utf8',
  });
  return { status, said: stderr.trim() };
}

describe('the start command', () => {
  it('ends on an old Node.js, and not on this one', () => {
    const check = (version: string) =>
      ask(`import { checkNode } from './scripts/setup/packages.mjs'; checkNode(${version});`);
    expect(check("'18.19.1'")).toEqual({
      status: 1,
      said: 'Gentle Margin needs Node.js 20.20 or newer; this is 18.19.1.',
    });
    expect(check("'20.19.9'").status).toBe(1);
    expect(check("'20.20.0'").status).toBe(0);
    expect(check('').status).toBe(0);
  });

  it('ends on a database that another version of PostgreSQL made', () => {
    const folder = mkdtempSync(join(tmpdir(), 'cluster-'));
    writeFileSync(join(folder, 'PG_VERSION'), '14\n');
    const { status, said } = ask(
      `import { binFor } from './scripts/setup/postgres.mjs'; binFor(${JSON.stringify(folder)}, ['15']);`,
    );
    rmSync(folder, { recursive: true });
    expect(status).toBe(1);
    expect(said).toContain('was made by PostgreSQL 14, and only 15 is installed; install postgresql-14.');
    expect(said.split('\n')).toHaveLength(1);
  });
});
