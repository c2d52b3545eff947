import { renderToStaticMarkup } from 'react-dom/server';
import { expect, test } from 'vitest';
import type { Schemas } from '../../api/client';
import { GradeDrawing } from './GradeDrawing';

/** The grades as the server gives them; drawings are told apart at a glance or they help nobody. */
const GRADES: Record<Schemas['FindingSubject'], readonly string[]> = {
  dust: ['0', '1', '2', '3', '4'],
  mesh: ['0', '1', '2', '3', '4'],
  'fan-spin': ['free', 'stiff', 'stuck'],
  'fan-noise': ['quiet', 'hums', 'rattles'],
  liquid: ['none', 'dried', 'wet'],
  seal: ['whole', 'broken', 'none'],
  paste: ['soft', 'stiff', 'dry', 'cracked', 'powder'],
  coverage: ['full', 'edges', 'spots', 'half'],
  pads: ['elastic', 'hard', 'torn', 'oily', 'thick', 'paste'],
};

for (const [about, grades] of Object.entries(GRADES) as [Schemas['FindingSubject'], readonly string[]][])
  test(`every grade of ${about} has a drawing of its own`, () => {
    const drawn = grades.map((grade) => renderToStaticMarkup(<GradeDrawing about={about} grade={grade} />));
    expect(new Set(drawn).size).toBe(grades.length);
  });
