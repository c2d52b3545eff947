-- An import can be undone as a whole: what it created is marked, what it changed is kept as it was.
CREATE TABLE import (
    id         INTEGER PRIMARY KEY,
    kind       TEXT NOT NULL CHECK (kind IN ('fleet', 'readings', 'services')),
    at         TEXT NOT NULL,
    actor_id   INTEGER NOT NULL REFERENCES actor (id),
    created    INTEGER NOT NULL DEFAULT 0,
    changed    INTEGER NOT NULL DEFAULT 0,
    undone_at  TEXT,
    -- What a fleet document changed, as it was: a record with a form of its own.
    form       INTEGER,
    before     TEXT
) STRICT;

-- The machines that an import touched.
CREATE TABLE import_asset (
    import_id  INTEGER NOT NULL REFERENCES import (id),
    asset_id   INTEGER NOT NULL,
    PRIMARY KEY (import_id, asset_id)
) STRICT, WITHOUT ROWID;

ALTER TABLE site ADD COLUMN import_id INTEGER;
ALTER TABLE zone ADD COLUMN import_id INTEGER;
ALTER TABLE asset ADD COLUMN import_id INTEGER;
ALTER TABLE service ADD COLUMN import_id INTEGER;
ALTER TABLE reading ADD COLUMN import_id INTEGER;

-- Readings of parts that have gone, moved here when another part needs their slot. They go back when the part comes back.
CREATE TABLE gone_part_reading (
    asset_id  INTEGER NOT NULL REFERENCES asset (id),
    name      TEXT NOT NULL,
    at_ms     INTEGER NOT NULL,
    celsius   REAL NOT NULL,
    PRIMARY KEY (asset_id, name, at_ms)
) STRICT, WITHOUT ROWID;
