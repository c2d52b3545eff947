-- What was wrong is kept, struck through, and left out of the judgement; machines move and retire with their history.

-- 0 as imported, 1 corrected, 2 voided.
ALTER TABLE reading ADD COLUMN amended INTEGER NOT NULL DEFAULT 0;

CREATE TABLE reading_amendment (
    id        INTEGER PRIMARY KEY,
    asset_id  INTEGER NOT NULL,
    at_ms     INTEGER NOT NULL,
    kind      TEXT NOT NULL CHECK (kind IN ('corrected', 'voided', 'restored')),
    "column"  TEXT,
    before    REAL,
    after     REAL,
    reason    TEXT NOT NULL,
    made_at   TEXT NOT NULL,
    FOREIGN KEY (asset_id, at_ms) REFERENCES reading (asset_id, at_ms)
) STRICT;

CREATE INDEX reading_amendment_reading ON reading_amendment (asset_id, at_ms);

ALTER TABLE service ADD COLUMN voided_at TEXT;
ALTER TABLE service ADD COLUMN voided_reason TEXT;

ALTER TABLE asset ADD COLUMN retired_on TEXT;
ALTER TABLE asset ADD COLUMN retired_reason TEXT;

CREATE TABLE asset_change (
    id        INTEGER PRIMARY KEY,
    asset_id  INTEGER NOT NULL REFERENCES asset (id),
    made_at   TEXT NOT NULL,
    field     TEXT NOT NULL,
    before    TEXT,
    after     TEXT
) STRICT;

CREATE INDEX asset_change_asset ON asset_change (asset_id);

-- "Looked, nothing to do": out of the queue until a day.
CREATE TABLE set_aside (
    asset_id  INTEGER PRIMARY KEY REFERENCES asset (id),
    reason    TEXT NOT NULL,
    until     TEXT NOT NULL,
    made_at   TEXT NOT NULL
) STRICT;
