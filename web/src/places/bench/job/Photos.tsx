import { t } from '@lingui/core/macro';
import { Button, Input, Segmented } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useOutbox } from '../../../api/outbox';
import type { BenchJob } from '../useBenchJob';

type Shows = 'found' | 'work' | 'damage';

/** The server takes no larger file. */
const LARGEST = 12 * 1024 * 1024;

/** Photos from the phone's camera or a file; the place that a camera writes into them is taken out by the server. */
export function Photos({ job, write }: BenchJob) {
  const file = useRef<HTMLInputElement>(null);
  const [caption, setCaption] = useState('');
  const [shows, setShows] = useState<Shows>(job.state === 'open' ? 'found' : 'work');
  const [problem, setProblem] = useState<string | null>(null);
  const closed = job.state === 'proven';
  const take = async (files: FileList | null) => {
    setProblem(null);
    for (const picture of files ?? []) {
      if (picture.size > LARGEST) {
        setProblem(t`${picture.name} is larger than 12 MB; take it with a lower resolution.`);
        continue;
      }
      const step = job.steps.find((s) => s.doneAt === null && !s.skipped)?.id ?? null;
      await write(
        {
          kind: 'photo-taken',
          photo: crypto.randomUUID(),
          caption: caption.trim() || null,
          step,
          foundOnOpening: shows === 'found',
          doneOnTheWay: shows === 'damage',
        },
        { photo: picture },
      );
    }
    setCaption('');
    if (file.current) file.current.value = '';
  };
  return (
    <section className="section" aria-label={t`Photos`}>
      <div className="section-head">
        <h2>{t`Photos`}</h2>
        <span className="quiet small">{job.photos.length || t`none yet`}</span>
      </div>
      {problem && (
        <p className="bench-caution" role="alert">
          {problem}
        </p>
      )}
      <div className="photos">
        {job.photos.map((p) => (
          <figure key={p.key}>
            <Picture photo={p.key} alt={p.caption ?? t`photo without a caption`} />
            <figcaption className="small">
              {p.caption}
              {p.foundOnOpening && <span className="quiet"> {t`as found`}</span>}
              {p.doneOnTheWay && <span className="quiet"> {t`damage done`}</span>}
            </figcaption>
          </figure>
        ))}
      </div>
      {!closed && (
        <>
          <Input
            aria-label={t`Caption of the next photo`}
            placeholder={t`What the next photo shows`}
            value={caption}
            maxLength={200}
            onChange={(e) => setCaption(e.target.value)}
          />
          <div className="bench-more">
            <Button onClick={() => file.current?.click()}>{t`Take or choose a photo`}</Button>
            <Segmented<Shows>
              aria-label={t`What it shows`}
              value={shows}
              onChange={setShows}
              options={[
                { value: 'found', label: t`as found` },
                { value: 'work', label: t`the work` },
                { value: 'damage', label: t`damage done` },
              ]}
            />
          </div>
          <input
            ref={file}
            type="file"
            accept="image/*"
            capture="environment"
            multiple
            hidden
            aria-label={t`Photo file`}
            onChange={(e) => void take(e.target.files)}
          />
        </>
      )}
    </section>
  );
}

/** A thumbnail: from this device while it waits, from the server afterwards. */
export function Picture({ photo, alt, large }: { photo: string; alt: string; large?: boolean }) {
  const waiting = useOutbox().waiting.find(
    (w) => w.entry.kind === 'photo-taken' && w.entry.photo === photo,
  )?.photo;
  const local = useMemo(() => (waiting ? URL.createObjectURL(waiting) : null), [waiting]);
  useEffect(() => () => (local ? URL.revokeObjectURL(local) : undefined), [local]);
  const address = `/api/v1/photos/${photo}`;
  const image = <img src={local ?? (large ? address : `${address}?small=true`)} alt={alt} loading="lazy" />;
  return local || large ? image : <a href={address}>{image}</a>;
}
