import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));

/** Source files below a folder that match a pattern, without their tests. */
function filesWith(folder: string, pattern: RegExp): string[] {
  return readdirSync(join(root, folder), { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && /\.tsx?$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name))
    .map((entry) => join(entry.parentPath, entry.name))
    .filter((path) => pattern.test(readFileSync(path, 'utf8')))
    .map((path) => relative(root, path));
}

describe('what arrives is read in one place', () => {
  it('forms by formOf, JSON by jsonOf', () => {
    expect(filesWith('web', /request\.formData\(\)/)).toEqual(['web/platform/http/form-of.ts']);
    expect(filesWith('web', /request\.json\(\)/)).toEqual(['web/platform/http/json-of.ts']);
  });
});

describe('a failure is caught by its name', () => {
  it('nowhere in the server is any failure at all taken for the one that was meant', () => {
    expect(filesWith('server', /\.catch\(\(\) =>/)).toEqual([]);
  });
});

describe('access to a student is given in few places', () => {
  it('by requireStudent and studentsOf, and where another door has been checked', () => {
    expect(filesWith('server', /\bgrant\(/).sort()).toEqual([
      'server/desk/cards.ts',
      'server/desk/seats.ts',
      'server/entries/check-session.ts',
      'server/entries/ratings/stack-rater.ts',
      'server/messages/deliver.ts',
      'server/sharing/share-links.ts',
      'server/student-record/carry-out-school.ts',
      'server/students/roster.ts',
    ]);
    expect(filesWith('web', /\bgrant\(|as StudentAccess/)).toEqual([]);
    expect(filesWith('server', /as StudentAccess/)).toEqual(['server/students/access.ts']);
  });
});
