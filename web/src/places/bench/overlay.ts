import type { Schemas } from '../../api/client';
import type { Waiting } from '../../api/kept';

type Job = Schemas['JobAnswer'];

/** The job as it will be once what waits on this device has arrived. The server has the last word. */
export function overlay(job: Job, waiting: readonly Waiting[]): Job {
  return waiting.filter((w) => w.jobId === job.id).reduce(apply, job);
}

function apply(job: Job, { entry, madeAt, by, key }: Waiting): Job {
  const step = (id: string, change: Partial<Schemas['StepAnswer']>): Job => ({
    ...job,
    steps: job.steps.map((s) => (s.id === id ? { ...s, ...change } : s)),
  });
  switch (entry.kind) {
    case 'step-done':
      return step(entry.step, {
        doneAt: madeAt,
        doneBy: by,
        checks: entry.checks ?? [],
        skipped: false,
        skippedBecause: null,
      });
    case 'step-undone':
      return step(entry.step, { doneAt: null, checks: [], skipped: false, skippedBecause: null });
    case 'step-skipped':
      return step(entry.step, { doneAt: null, skipped: true, skippedBecause: entry.reason ?? null });
    case 'counted': {
      const others = job.counts.filter((c) => c.what !== entry.what || c.item !== entry.item);
      return {
        ...job,
        counts: [
          ...others,
          { what: entry.what, item: entry.item, out: entry.out, in: entry.in, place: entry.place ?? null },
        ],
      };
    }
    case 'count-excused':
      return {
        ...job,
        countExcuses: entry.item ? job.countExcuses : { ...job.countExcuses, [entry.what]: entry.reason },
        excuses: [...job.excuses, entry],
      };
    case 'chip-seen':
      return { ...job, notes: { ...job.notes, chip: entry.chip } };
    case 'found':
      return { ...job, findings: [...job.findings.filter((f) => f.about !== entry.about), entry] };
    case 'damage-found':
      return entry.onTheWay
        ? { ...job, damageDone: [...job.damageDone, entry.text] }
        : { ...job, damage: [...job.damage, entry.text] };
    case 'deviation-seen':
      return { ...job, deviations: [...job.deviations, entry.text] };
    case 'complaint-recorded':
      return { ...job, complaint: entry };
    case 'before-excused':
      return { ...job, beforeExcuse: entry.reason, blockedBefore: null };
    case 'run-measured': {
      // It was made whole here (runOf); what is sent might leave members out.
      const measured = entry.run as Schemas['RunAnswer'];
      const run = { key, phase: entry.phase, measuredAt: madeAt, run: measured, voided: null };
      return {
        ...job,
        runs: [...job.runs, run],
        timers: job.timers.map((t) => (t.timer === `${entry.phase}-run` ? { ...t, stopped: true } : t)),
        blockedBefore: entry.phase === 'before' ? null : job.blockedBefore,
      };
    }
    case 'run-voided': {
      const standing = job.runs.filter((r) => r.phase === entry.phase && r.voided === null);
      const struck = entry.runKey ?? standing.at(-1)?.key;
      return { ...job, runs: job.runs.map((r) => (r.key === struck ? { ...r, voided: entry.reason } : r)) };
    }
    case 'timer-started': {
      const others = job.timers.filter((t) => t.timer !== entry.timer);
      return {
        ...job,
        timers: [
          ...others,
          { timer: entry.timer, startedAt: madeAt, seconds: entry.seconds, stopped: false },
        ],
      };
    }
    case 'timer-stopped':
      return {
        ...job,
        timers: job.timers.map((t) => (t.timer === entry.timer ? { ...t, stopped: true } : t)),
      };
    case 'material-used': {
      const same = (m: Schemas['MaterialUsed']) =>
        m.material === entry.material && (m.thicknessMm ?? null) === (entry.thicknessMm ?? null);
      const before = job.materials.find(same)?.amount ?? 0;
      return {
        ...job,
        materials: [
          ...job.materials.filter((m) => !same(m)),
          { ...entry, amount: before + entry.amount },
        ].filter((m) => m.amount > 0),
      };
    }
    case 'product-used':
      return { ...job, products: [...job.products.filter((p) => p.product !== entry.product), entry] };
    case 'pad-measured':
      return { ...job, padsMeasured: [...job.padsMeasured.filter((p) => p.place !== entry.place), entry] };
    case 'tool-used':
      return job.tools.includes(entry.tool) ? job : { ...job, tools: [...job.tools, entry.tool] };
    case 'order-agreed':
      return { ...job, order: entry, unagreed: entry.mayOpen ? null : job.unagreed };
    case 'minutes-booked':
      return { ...job, minutes: job.minutes + entry.minutes };
    case 'noted':
      return { ...job, note: entry.text };
    case 'photo-taken':
      return {
        ...job,
        photos: [
          ...job.photos,
          {
            key: entry.photo,
            caption: entry.caption ?? null,
            step: entry.step ?? null,
            foundOnOpening: entry.foundOnOpening,
            takenAt: madeAt,
            doneOnTheWay: entry.doneOnTheWay ?? false,
          },
        ],
      };
    case 'work-filed':
      return { ...job, state: 'waiting-for-proof', workDoneAt: madeAt };
    case 'notes-taken':
      return { ...job, notesChanged: false };
    case 'handed-back':
      return {
        ...job,
        handedBack: {
          to: entry.to,
          note: entry.note ?? null,
          at: madeAt,
          condition: entry.condition ?? null,
        },
      };
    default:
      // A card changed on the spot is drawn by the server's rules; it shows once it has arrived.
      return job;
  }
}
