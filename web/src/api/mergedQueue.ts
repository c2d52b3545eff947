import type { Schemas } from './client';

type Queue = Schemas['QueueAnswer'];

/**
 * The whole queue after an answer: where that tells only what has changed since the queue at hand, its rows are put in at
 * their ranks and all others stay, in their order and as the same objects.
 */
export function mergedQueue(before: Queue | undefined, answer: Queue): Queue {
  if (!answer.since || before?.mark !== answer.since) return answer;
  const moved = new Set([...answer.items.map((i) => i.asset), ...(answer.gone ?? [])]);
  const stayed = before.items.filter((i) => !moved.has(i.asset));
  const items: Queue['items'] = [];
  for (let at = 0, next = 0; at < stayed.length || next < answer.items.length;) {
    const rank = items.length + 1;
    const changed = answer.items[next];
    const old = stayed[at];
    if (changed && (changed.rank === rank || !old)) {
      items.push(changed);
      next++;
    } else if (old) {
      items.push(old.rank === rank ? old : { ...old, rank });
      at++;
    }
  }
  return { ...answer, items, since: null, gone: null };
}
