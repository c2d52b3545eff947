-- Intervals that the record suggested and somebody did not want.
CREATE TABLE refused_interval (
    scope  TEXT NOT NULL CHECK (scope IN ('zone', 'model')),
    key    TEXT NOT NULL,
    level  TEXT NOT NULL,
    months REAL NOT NULL,
    at     TEXT NOT NULL,
    reason TEXT NOT NULL,
    PRIMARY KEY (scope, key, level)
) STRICT;
