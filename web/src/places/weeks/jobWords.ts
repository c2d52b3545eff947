import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { levelName } from '../../words/work';
import { tagsOf, type Person, type TrackJob } from './board';

type Work = Pick<Schemas['PlannedJob'], 'kind' | 'title' | 'steps'>;

/** What a job is called in short: its machine, a host with its machines, or what a person called it. */
export function nameOf(job: Work): string {
  const tags = tagsOf(job);
  if (job.title === '') return tags[0] ?? '';
  return tags.length > 1
    ? t`${job.title}: ${plural(tags.length, { one: '# machine', other: '# machines' })}`
    : job.title;
}

/** What is done. */
export function workWords(job: Work): string {
  switch (job.kind) {
    case 'after-run':
      return t`after-run`;
    case 'second-look':
      return t`second look, a week later`;
    case 'deciding-run':
      return t`measure first`;
    case 'visit':
      return t`added by hand`;
    case 'service':
      return [...new Set(job.steps.map((s) => (s.level ? levelName(s.level) : '')))].join(', ');
  }
}

/** Who does it with somebody, where it takes two. */
export function togetherWords(job: TrackJob, people: readonly Person[]): string {
  const other = job.helps === true ? job.person : (job.help?.person ?? '');
  const name = people.find((p) => p.code === other)?.name ?? other;
  return job.helps === true ? t`It takes two: helping ${name}` : t`It takes two: with ${name}`;
}

/** Skills in words. */
export const SKILLS: Record<Schemas['Skill'], string> = {
  'open-cards': t`open graphics cards`,
  'change-pads': t`change pads`,
  'open-laptops': t`open laptops`,
  'lift-with-two': t`lift with two`,
};
