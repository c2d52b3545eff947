-- What people saw or heard machines do, and the house's rules.

CREATE TABLE symptom (
    id                INTEGER PRIMARY KEY,
    asset_id          INTEGER NOT NULL REFERENCES asset (id),
    date              TEXT NOT NULL,
    kind              TEXT NOT NULL CHECK (kind IN ('crash', 'shutdown', 'throttling', 'noise')),
    note              TEXT,
    made_at           TEXT NOT NULL,
    withdrawn_at      TEXT,
    withdrawn_reason  TEXT
) STRICT;

CREATE INDEX symptom_asset ON symptom (asset_id);

-- One row: what differs from the defaults is not told apart, the whole is kept.
CREATE TABLE policy (
    id                    INTEGER PRIMARY KEY CHECK (id = 1),
    action_margin_kelvin  REAL NOT NULL,
    worth_kelvin          REAL NOT NULL,
    much_kelvin           REAL NOT NULL,
    school                TEXT NOT NULL
) STRICT;
