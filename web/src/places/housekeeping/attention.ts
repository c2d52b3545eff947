import { plural, t } from '@lingui/core/macro';
import type { Schemas } from '../../api/client';
import { tenths } from '../../words/format';
import { growthOf } from './growth';

/** Something that whoever keeps the house should see to, and where. */
export interface Attention {
  says: string;
  to?: string;
  go?: string;
}

/** A backup older than this is worth a word, days. Common practice, no source. */
const OLD_BACKUP_DAYS = 7;

/** With less room than this a backup or a large import may not fit, bytes. Common practice, no source. */
const LITTLE_ROOM = 2_000_000_000;

/** A disk that is full within so many months is worth a word now. */
const FULL_SOON_MONTHS = 6;

/** What asks for whoever keeps the house; what presses most comes first. */
export function attention(house: Schemas['HousekeepingAnswer'], now: Date): Attention[] {
  const backups = { to: '/rules/backups', go: t`Backups` };
  const accounts = { to: '/rules/accounts', go: t`Accounts` };
  const keys = { to: '/rules/accounts', go: t`Keys of programs` };
  const { lastGood, failure } = house.backups;
  const age = lastGood ? Math.floor((now.getTime() - new Date(lastGood).getTime()) / 86_400_000) : null;
  const months = growthOf(house.days, house.freeBytes)?.monthsLeft ?? null;
  const found: (Attention | false)[] = [
    failure !== null && { says: t`The last backup was not made: ${failure}`, ...backups },
    age === null && { says: t`There is no backup: what this disk loses is lost.`, ...backups },
    age !== null &&
      age >= OLD_BACKUP_DAYS && {
        says: plural(age, {
          one: 'The last good backup is # day old.',
          other: 'The last good backup is # days old.',
        }),
        ...backups,
      },
    house.freeBytes < LITTLE_ROOM && {
      says: t`Only ${tenths(house.freeBytes / 1_000_000_000)} GB of the disk are free: a backup may not fit.`,
    },
    months !== null &&
      months < FULL_SOON_MONTHS && {
        says: t`At its pace the disk is full within half a year: make room, or move the folder.`,
      },
    (house.people?.shut ?? 0) > 0 && {
      says: plural(house.people!.shut, {
        one: 'The link of one person has ended before they came in: give them a new one.',
        other: 'The links of # people have ended before they came in: give them new ones.',
      }),
      ...accounts,
    },
    (house.keys?.ended ?? 0) > 0 && {
      says: plural(house.keys!.ended, {
        one: 'The key of one program has ended: what it sends is refused.',
        other: 'The keys of # programs have ended: what they send is refused.',
      }),
      ...keys,
    },
    (house.keys?.endSoon ?? 0) > 0 && {
      says: plural(house.keys!.endSoon, {
        one: 'The key of one program ends within a month.',
        other: 'The keys of # programs end within a month.',
      }),
      ...keys,
    },
  ];
  return found.filter((f) => f !== false);
}
