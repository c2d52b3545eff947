import { t } from '@lingui/core/macro';
import { Button } from 'antd';
import { useEffect, useRef, useState } from 'react';
import type { BenchJob } from '../useBenchJob';

/** The device's clock by the second, while something depends on it. */
export function useNow(running: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (!running) return;
    const tick = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(tick);
  }, [running]);
  return now;
}

/** Minutes and seconds. */
export function duration(milliseconds: number): string {
  const seconds = Math.max(0, Math.ceil(milliseconds / 1000));
  return `${String(Math.floor(seconds / 60))}:${String(seconds % 60).padStart(2, '0')}`;
}

/** Timers run side by side, survive a reload, and ring until they are heard. */
export function Timers({ job, write }: BenchJob) {
  const live = job.timers.filter((t) => !t.stopped && !isTicked(job, t.timer));
  const now = useNow(live.length > 0);
  const ringing = live.filter((t) => Date.parse(t.startedAt) + t.seconds * 1000 <= now);
  useRing(ringing.length);
  if (live.length === 0) return null;
  return (
    <ul className="bench-timers" aria-label={t`Timers`}>
      {live.map((timer) => {
        const left = Date.parse(timer.startedAt) + timer.seconds * 1000 - now;
        return (
          <li key={timer.timer} className={left <= 0 ? 'ringing' : undefined}>
            <span className="figures">{left > 0 ? duration(left) : t`Time!`}</span> {nameOf(job, timer.timer)}
            <Button
              size="small"
              type="text"
              onClick={() => void write({ kind: 'timer-stopped', timer: timer.timer })}
            >
              {left > 0 ? t`Stop` : t`Heard`}
            </Button>
          </li>
        );
      })}
    </ul>
  );
}

function isTicked(job: BenchJob['job'], timer: string): boolean {
  return job.steps.some((s) => s.id === timer && s.doneAt !== null);
}

function nameOf(job: BenchJob['job'], timer: string): string {
  return job.steps.find((s) => s.id === timer)?.timer?.name ?? timer;
}

/** A short tone and a shake, once for each timer that begins to ring. */
function useRing(count: number) {
  const heard = useRef(0);
  useEffect(() => {
    if (count > heard.current) {
      // Not every browser has it.
      (navigator as Partial<Navigator>).vibrate?.([200, 100, 200]);
      try {
        const audio = new AudioContext();
        const tone = audio.createOscillator();
        tone.connect(audio.destination);
        tone.frequency.value = 880;
        tone.start();
        tone.stop(audio.currentTime + 0.5);
        tone.onended = () => void audio.close();
      } catch {
        // Some devices let no page sound before it was touched; the word on the screen stays.
      }
    }
    heard.current = count;
  }, [count]);
}
