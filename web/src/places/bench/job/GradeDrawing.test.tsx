import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import grades from '../../../../../tests/golden/grades.json';
import type { Schemas } from '../../../api/client';
import { GradeDrawing } from './GradeDrawing';

/** Written by the server's grades (a test there holds it): drawings are told apart at a glance or they help nobody. */
const GRADES = grades as Record<Schemas['FindingSubject'], readonly string[]>;

for (const [about, words] of Object.entries(GRADES) as [Schemas['FindingSubject'], readonly string[]][])
  test(`every grade of ${about} has a drawing of its own`, () => {
    const drawn = words.map((grade) => renderToStaticMarkup(<GradeDrawing about={about} grade={grade} />));
    expect(new Set(drawn).size).toBe(words.length);
  });
