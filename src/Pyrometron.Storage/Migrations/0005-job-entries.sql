-- A job becomes the sum of its entries; nothing is overwritten any more. What the older tables held is carried over.

CREATE TABLE job_entry (
    id         INTEGER PRIMARY KEY,
    job_id     INTEGER NOT NULL REFERENCES job (id),
    key        TEXT NOT NULL UNIQUE,
    version    INTEGER NOT NULL,
    subject    TEXT,
    kind       TEXT NOT NULL,
    device     TEXT NOT NULL,
    by         TEXT,
    made_at    TEXT NOT NULL,
    stored_at  TEXT NOT NULL,
    entry      TEXT NOT NULL,
    UNIQUE (job_id, version)
) STRICT;

INSERT INTO job_entry (job_id, key, version, subject, kind, device, made_at, stored_at, entry)
SELECT job_id, lower(hex(randomblob(16))), 1 + row_number() OVER (PARTITION BY job_id ORDER BY at, rank), subject, kind, 'before entries', at, at,
       json_set(entry, '$.kind', kind)
FROM (
    SELECT id AS job_id, started_at AS at, 0 AS rank, 'run Before' AS subject, 'before-excused' AS kind, json_object('reason', no_before_reason) AS entry
    FROM job WHERE no_before_reason IS NOT NULL
    UNION ALL
    SELECT job_id, measured_at, CASE phase WHEN 'before' THEN 1 ELSE 5 END, CASE phase WHEN 'before' THEN 'run Before' ELSE 'run After' END, 'run-measured',
           json_object('phase', phase, 'run', json(run)) FROM run
    UNION ALL
    SELECT job_id, voided_at, 6, CASE phase WHEN 'before' THEN 'run Before' ELSE 'run After' END, 'run-voided', json_object('phase', phase, 'reason', voided_reason)
    FROM run WHERE voided_at IS NOT NULL AND voided_reason <> 'measured again'
    UNION ALL
    SELECT job_id, done_at, 2, 'step ' || step, 'step-done', json_object('step', step, 'checks', json('[]')) FROM job_step
    UNION ALL
    SELECT id, coalesce(work_done_at, closed_at, started_at), 3, 'note', 'noted', json_object('text', note) FROM job WHERE note IS NOT NULL
    UNION ALL
    SELECT id, work_done_at, 4, 'state', 'work-filed', json('{}') FROM job WHERE work_done_at IS NOT NULL
    UNION ALL
    SELECT id, closed_at, 7, 'state', 'verdict-filed', json('{}') FROM job WHERE state = 'proven'
    UNION ALL
    SELECT id, closed_at, 7, 'state', 'given-up', json_object('reason', coalesce(note, 'no reason kept')) FROM job WHERE state = 'abandoned'
);

UPDATE job SET version = coalesce((SELECT max(version) FROM job_entry WHERE job_id = job.id), 1);

DROP TABLE run;
DROP TABLE job_step;
ALTER TABLE job DROP COLUMN no_before_reason;
ALTER TABLE job DROP COLUMN note;
-- The level as started; "level" is the one in hand.
ALTER TABLE job ADD COLUMN started_level TEXT;
UPDATE job SET started_level = level;
ALTER TABLE job ADD COLUMN fan TEXT;
ALTER TABLE job ADD COLUMN warranty_until TEXT;
ALTER TABLE job ADD COLUMN predicted_cause TEXT;
ALTER TABLE job ADD COLUMN predicted_service TEXT;
ALTER TABLE job ADD COLUMN predicted_kelvin REAL;
-- What the findings spoke for, words with a space between; null while nothing was looked at.
ALTER TABLE job ADD COLUMN found_causes TEXT;
ALTER TABLE job ADD COLUMN recheck_due TEXT;
ALTER TABLE job ADD COLUMN rechecked_at TEXT;

CREATE TABLE photo (
    key      TEXT PRIMARY KEY,
    job_id   INTEGER NOT NULL REFERENCES job (id),
    width    INTEGER NOT NULL,
    height   INTEGER NOT NULL,
    -- JPEG both, made anew from the pixels: nothing of what a camera writes beside them is kept.
    picture  BLOB NOT NULL,
    small    BLOB NOT NULL
) STRICT;

CREATE INDEX photo_job ON photo (job_id);

-- Samples that a device or a hand supplies while a run is going on.
CREATE TABLE job_sample (
    job_id  INTEGER NOT NULL REFERENCES job (id),
    at      TEXT NOT NULL,
    sample  TEXT NOT NULL,
    PRIMARY KEY (job_id, at)
) STRICT, WITHOUT ROWID;

CREATE TABLE model_notes (
    model       TEXT PRIMARY KEY,
    notes       TEXT NOT NULL,
    changed_at  TEXT NOT NULL,
    -- The job that added to them last, or null where a person did.
    job_id      INTEGER REFERENCES job (id),
    version     INTEGER NOT NULL DEFAULT 1
) STRICT;

-- The house's ways at the bench.
ALTER TABLE policy ADD COLUMN extent TEXT NOT NULL DEFAULT 'least-that-cures';
ALTER TABLE policy ADD COLUMN warranty TEXT NOT NULL DEFAULT 'air-only';
ALTER TABLE policy ADD COLUMN paste TEXT NOT NULL DEFAULT 'by-model';
ALTER TABLE policy ADD COLUMN pads TEXT NOT NULL DEFAULT 'keep-if-elastic';
ALTER TABLE policy ADD COLUMN alcohol TEXT NOT NULL DEFAULT 'ninetynine';
ALTER TABLE policy ADD COLUMN air TEXT NOT NULL DEFAULT 'compressor';
ALTER TABLE policy ADD COLUMN opening TEXT NOT NULL DEFAULT 'reverse-of-numbers';
